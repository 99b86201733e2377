import Papa from 'papaparse';
import { encodingOf } from './decodeText';
import type { LogMap } from './logLayout';
import { logReader, type Log, type LogFault, type LogReader } from './readLog';
import { newlineOf, separatorOf } from './separator';

/** A line longer than this is none of a log. */
const LONGEST_LINE = 1_000_000;
/** Bytes that are looked at for encoding and separator. */
const LOOKED_AT = 200_000;
/** Later lines may be shorter than those at the head. */
const ROOM = 1.05;
/** Rows beyond which room is made as they come. */
const MOST_ROOM = 5_000_000;
const QUOTE = 34;

export interface ReadBytesOptions {
  map?: LogMap | undefined;
  /** Size of the file where it is known: with the right room from the beginning nothing is copied on the way. */
  bytes?: number | undefined;
  /** Told how many samples were read after each piece; false stops the reading. */
  progress?: ((samples: number) => boolean | void) | undefined;
}

type Pieces = AsyncIterable<Uint8Array> | Iterable<Uint8Array>;

const fault = (row: number, message: string): { fault: LogFault } => ({
  fault: { row, column: 1, message },
});

/**
 * Reads a log from the bytes of its file, piece by piece, in memory that is bounded by its figures.
 *
 * Lines without quotes are taken apart as bytes: a string for each cell costs three times as much as all else. From the first
 * quote on Papa Parse takes them apart.
 *
 * @param pieces the file's bytes in order; pieces of a megabyte or so are best
 * @param options layout told by a person, progress
 * @returns the log, or the place and reason why it cannot be read
 */
export async function readLogBytes(
  pieces: Pieces,
  { map = {}, bytes: size = 0, progress }: ReadBytesOptions = {},
): Promise<{ log: Log } | { fault: LogFault }> {
  let reader: LogReader | null = null;
  let separator = '';
  let newline: ReturnType<typeof newlineOf> = '\n';
  /** Bytes of a line that goes on; null once lines are taken apart as text. */
  let left: Uint8Array | null = new Uint8Array(0);
  let text = '';
  const decoder = new TextDecoder();
  let empty = true;

  const samples = () => reader?.samples() ?? 0;
  const understand = (head: Uint8Array): LogFault | null => {
    const looked = new TextDecoder().decode(head);
    newline = newlineOf(looked);
    const found = map.separator ?? separatorOf(looked);
    if (found === null) return fault(1, 'there is no header with figures below it').fault;
    separator = found;
    const inHead = looked.split('\n').length;
    const expected = inHead > 10 ? (ROOM * inHead * size) / head.length : 0;
    reader = logReader(map, separator === ',', Math.min(expected, MOST_ROOM));
    return null;
  };
  const takeText = (more: string, last: boolean): LogFault | null => {
    const parser = new Papa.Parser({ delimiter: separator, newline });
    text += more;
    const { data, meta } = parser.parse(text, 0, !last) as Papa.ParseResult<string[]>;
    text = last ? '' : text.slice(meta.cursor);
    for (const cells of data) {
      const bad = reader!.add(cells);
      if (bad) return bad;
    }
    return null;
  };
  const take = (bytes: Uint8Array, last: boolean): LogFault | null => {
    if (left === null) return takeText(decoder.decode(bytes, { stream: !last }), last);
    const all: Uint8Array = left.length ? joined(left, bytes) : bytes;
    if (!reader) {
      if (all.length < LOOKED_AT && !last) {
        left = all;
        return null;
      }
      const bad = understand(all.subarray(0, LOOKED_AT));
      if (bad) return bad;
    }
    if (newline === '\r' || all.includes(QUOTE)) {
      left = null;
      return takeText(decoder.decode(all, { stream: !last }), last);
    }
    const ended = last && all.length > 0 ? joined(all, LINE_FEED) : all;
    const upTo = reader!.addBytes(ended, separator);
    if (typeof upTo !== 'number') return upTo;
    left = ended.slice(upTo);
    return null;
  };

  for await (const bytes of inUtf8(pieces)) {
    empty &&= bytes.length === 0;
    const bad = take(bytes, false);
    if (bad) return { fault: bad };
    if (Math.max(left?.length ?? 0, text.length) > LOOKED_AT + LONGEST_LINE) {
      return fault(samples() + 1, 'a line is longer than a million characters');
    }
    if (progress?.(samples()) === false) {
      return fault(1, 'the reading was stopped');
    }
  }
  if (empty) return fault(1, 'the file is empty');
  const bad = take(new Uint8Array(0), true);
  return bad ? { fault: bad } : reader!.end();
}

const LINE_FEED = Uint8Array.of(10);

function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
  const all = new Uint8Array(a.length + b.length);
  all.set(a);
  all.set(b, a.length);
  return all;
}

/** The pieces in UTF-8 without a mark, whatever they are written in; that is told from the first of them together. */
async function* inUtf8(pieces: Pieces): AsyncGenerator<Uint8Array> {
  let head: Uint8Array = new Uint8Array(0);
  let turn: ((bytes: Uint8Array, last: boolean) => Uint8Array) | null = null;
  for await (const bytes of pieces) {
    if (turn) {
      yield turn(bytes, false);
      continue;
    }
    head = joined(head, bytes);
    if (head.length < LOOKED_AT) continue;
    turn = turnerFrom(head);
    yield turn(head, false);
  }
  if (!turn && head.length > 0) {
    turn = turnerFrom(head);
    yield turn(head, false);
  }
  if (turn) yield turn(new Uint8Array(0), true);
}

function turnerFrom(first: Uint8Array): (bytes: Uint8Array, last: boolean) => Uint8Array {
  const encoding = encodingOf(first);
  const marked = first[0] === 0xef && first[1] === 0xbb && first[2] === 0xbf;
  if (encoding === 'utf-8' && !marked) return (bytes) => bytes;
  const decoder = new TextDecoder(encoding);
  const encoder = new TextEncoder();
  return (bytes, last) => encoder.encode(decoder.decode(bytes, { stream: !last }));
}
