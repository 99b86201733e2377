import { DOCUMENT_BOUNDS, jsonFault } from '../exchange/jsonFault';
import { openUpLog, type OpenUpLog } from './openUpLog';

const MAX_CHARACTERS = 1024 * 1024;

/** A log as the text of a file. */
export const logFileText = (log: OpenUpLog): string => `${JSON.stringify(log, null, 2)}\n`;

/**
 * Reads the text of a file as a log.
 *
 * @throws Error that says in words why it is none, with the first place that is wrong
 */
export function readLogFile(text: string): OpenUpLog {
  if (text.length > MAX_CHARACTERS) throw new Error('the file is larger than 1 MB');
  const fault = jsonFault(text, DOCUMENT_BOUNDS);
  if (fault) throw new Error(`the file ${fault}`);
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new Error('the file is not well-formed JSON');
  }
  const read = openUpLog.safeParse(json);
  if (read.success) return read.data;
  const first = read.error.issues[0]!;
  const place = first.path.join('.');
  if (place === 'format' || place === '') throw new Error('the file is no log of an opening');
  throw new Error(`${place} ${first.message}`);
}
