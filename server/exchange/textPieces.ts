import { isCount } from '@zugluft/core/count/countSchema';
import {
  documentFault,
  DOCUMENT_BOUNDS,
  jsonFault,
  MAX_DOCUMENT_BYTES,
  type JsonBounds,
} from '@zugluft/core/exchange/jsonFault';
import { splitList } from '@zugluft/core/exchange/splitList';
import { readFile } from 'node:fs/promises';
import { Problem } from '../security/problem';
import { csvPieces, type CsvPieces } from './csvPieces';
import { MANIFEST, manifestSchema, MAX_MACHINES } from './manifest';
import { textOf } from './textOf';
import { Unreadable } from './unzip';

/** Of a file with many records. */
export const MAX_LIST = 25 * MAX_DOCUMENT_BYTES;
/** Of a file with many records: each is one level further in. */
export const LIST_BOUNDS = { depth: DOCUMENT_BOUNDS.depth + 1, values: 2_000_000 };

/**
 * A file taken apart into what may become one machine each, as text: so that a large one is parsed beside the thread that answers,
 * and that thread makes values of no more than one machine at a time.
 */
export type TextPieces =
  | CsvPieces
  | { kind: 'records'; records: ({ text: string; isCount: boolean } | { refused: string })[] };

/** What the thread that parses does: a file that is no zip, or the list of a zip. */
export type TextJob =
  { do: 'text'; path: string; name: string } | { do: 'list'; bytes: Uint8Array };
export type TextAnswer =
  | { pieces: TextPieces }
  /** JSON of each machine that a list names. */
  | { machines: string[] }
  | { problem: { status: number; title: string; detail: string } };
export type DoTextJob = ((job: TextJob) => Promise<TextAnswer>) & { end?: () => Promise<unknown> };

function textWithin(bytes: Uint8Array, most: number, bounds: JsonBounds): string {
  if (bytes.length > most) throw new Unreadable(`is larger than ${most / MAX_DOCUMENT_BYTES} MB`);
  const text = textOf(bytes);
  const fault = jsonFault(text, bounds);
  if (fault) throw new Unreadable(fault);
  return text;
}

/**
 * JSON within bounds.
 *
 * @throws Unreadable
 */
export function readJson(
  bytes: Uint8Array,
  most = MAX_DOCUMENT_BYTES,
  bounds: JsonBounds = DOCUMENT_BOUNDS,
): unknown {
  const text = textWithin(bytes, most, bounds);
  try {
    return JSON.parse(text) as unknown;
  } catch {
    throw new Unreadable('is not well-formed JSON');
  }
}

/** Does a job of parsing; what is wrong with the file is an answer, not a failure. */
export async function doTextJob(job: TextJob): Promise<TextAnswer> {
  try {
    return job.do === 'list'
      ? { machines: listed(job.bytes) }
      : { pieces: piecesOf(await readFile(job.path), job.name) };
  } catch (cause) {
    if (!(cause instanceof Problem)) throw cause;
    return { problem: { status: cause.status, title: cause.title, detail: cause.message } };
  }
}

function listed(bytes: Uint8Array): string[] {
  try {
    const { machines } = manifestSchema.parse(readJson(bytes, MAX_LIST, LIST_BOUNDS));
    return machines.map((machine) => JSON.stringify(machine));
  } catch {
    throw new Problem(422, 'Broken library', `${MANIFEST} in the zip is not as it should be`);
  }
}

/**
 * Takes a text file apart, by its content and not its name: one record or a list of them as JSON, rows as CSV.
 *
 * @throws Problem 422 where the file as a whole cannot be read
 */
function piecesOf(bytes: Uint8Array, name: string): TextPieces {
  if (bytes.includes(0)) {
    throw new Problem(422, 'Unknown file', 'the file is neither JSON nor CSV nor a zip');
  }
  const first = bytes.find((b) => b > 0x20 && b !== 0xef && b !== 0xbb && b !== 0xbf);
  if (first !== 0x7b && first !== 0x5b) return csvPieces(bytes, name);
  let texts: string[];
  try {
    texts = first === 0x5b ? listOf(bytes) : [textWithin(bytes, MAX_LIST, DOCUMENT_BOUNDS)];
  } catch (cause) {
    throw new Problem(422, 'Not read', `${name} ${(cause as Error).message}`);
  }
  if (texts.length > MAX_MACHINES) {
    throw new Problem(422, 'Too much', `more than ${MAX_MACHINES} records`);
  }
  return { kind: 'records', records: texts.map((text) => recordPiece(text, name)) };
}

/** Elements of a list as texts: all its values at once would take many times its bytes. */
function listOf(bytes: Uint8Array): string[] {
  // a list is one level further out
  const elements = splitList(textWithin(bytes, MAX_LIST, LIST_BOUNDS));
  if (!elements) throw new Unreadable('is not well-formed JSON');
  return elements;
}

function recordPiece(text: string, name: string) {
  let record: unknown;
  try {
    record = JSON.parse(text);
  } catch {
    throw new Problem(422, 'Not read', `${name} is not well-formed JSON`);
  }
  const fault = documentFault(record);
  return fault === null
    ? { text: JSON.stringify(record), isCount: isCount(record) }
    : { refused: `the record ${fault}` };
}
