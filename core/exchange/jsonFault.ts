import {
  BACKSLASH,
  CLOSE_LIST,
  CLOSE_OBJECT,
  COMMA,
  OPEN_LIST,
  OPEN_OBJECT,
  QUOTE,
} from './jsonSigns';

/** What a JSON text may hold: bounds that hold wherever one comes in, so that what is kept can go out and come back. */
export interface JsonBounds {
  /** Levels of objects and lists in each other. */
  depth: number;
  /** Values of all kinds. */
  values: number;
}

/** Of one document: the largest records have some thousand values. */
export const DOCUMENT_BOUNDS: JsonBounds = { depth: 32, values: 100_000 };
/** Bytes of one document as it is printed for a file. */
export const MAX_DOCUMENT_BYTES = 1024 * 1024;

/** A document as the text of a file: with line breaks where it is then still taken back, without where it would be too long. */
export function printedDocument(value: unknown): string {
  const open = `${JSON.stringify(value, null, 2)}\n`;
  return bytesOf(open) <= MAX_DOCUMENT_BYTES ? open : JSON.stringify(value);
}

const bytesOf = (text: string) => new TextEncoder().encode(text).length;

/**
 * What keeps a document from being kept: the same bounds hold for what comes in a request, a file or a zip.
 *
 * @returns words that go on from a name, or null
 */
export function documentFault(value: unknown): string | null {
  const text = JSON.stringify(value) ?? 'null';
  if (text.length > MAX_DOCUMENT_BYTES || bytesOf(text) > MAX_DOCUMENT_BYTES) {
    return 'is larger than 1 MB';
  }
  return jsonFault(text, DOCUMENT_BOUNDS);
}

/**
 * What keeps a JSON text from being taken, found without making its values: so that a hostile one is refused before it takes memory.
 *
 * @param text JSON; it need not be well formed
 * @returns words that go on from a name, or null
 * @example jsonFault('[[[]]]', { depth: 2, values: 9 }) // 'is nested more than 2 levels deep'
 */
export function jsonFault(text: string, { depth: most, values }: JsonBounds): string | null {
  let depth = 0;
  let count = 1;
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (quoted) {
      if (c === BACKSLASH) {
        if (text.startsWith('u0000', i + 1)) return 'holds U+0000, which no text may';
        i++;
      } else if (c === QUOTE) quoted = false;
    } else if (c === QUOTE) quoted = true;
    else if (c === COMMA) count++;
    else if (c === OPEN_OBJECT || c === OPEN_LIST) {
      count++;
      if (++depth > most) return `is nested more than ${most} levels deep`;
    } else if (c === CLOSE_OBJECT || c === CLOSE_LIST) depth--;
    if (count > values) return `holds more than ${values} values`;
  }
  return null;
}
