import { Unreadable } from './unzip';

/**
 * Bytes as text.
 *
 * @throws Unreadable where they are none in UTF-8
 */
export function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new Unreadable('is no text in UTF-8');
  }
}
