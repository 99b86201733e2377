import Papa from 'papaparse';
import { KIND_NAMES, kindNamed, type KindName } from '@zugluft/core/documents/kinds';
import {
  stateName as stateNameSchema,
  unitFacts,
  type UnitFacts,
} from '@zugluft/core/family/unitFacts';
import { applyMachineRow, editParts, fileKind, type Row } from '@zugluft/core/exchange/csvRows';
import { countOfRow, isCountHeader } from '@zugluft/core/count/countRow';
import { isCount } from '@zugluft/core/count/countSchema';
import { parseCount } from '@zugluft/core/count/parseCount';
import { plainCell } from '@zugluft/core/exchange/cells';
import { DOCUMENT_BOUNDS, jsonFault, MAX_DOCUMENT_BYTES } from '@zugluft/core/exchange/jsonFault';
import { MAX_RUNS } from '@zugluft/core/library/runAnswers';
import { MAX_ATTACHMENTS } from '@zugluft/core/library/attachment';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { z } from 'zod';
import type { Identity } from '../machines/machineList';
import { Problem } from '../security/problem';
import { RUN_FILE } from '../runs/runFiles';
import { readWhole, type Received } from './receiveFile';
import { openZip, Unreadable, type ZipFiles } from './unzip';

/** Something in a file that may become a machine. */
export interface Candidate {
  /** Where it stood: a file in the zip, a line of a CSV. */
  label: string;
  /** The library's id, where the file came from one. */
  id?: string;
  record?: unknown;
  refused?: string;
  /** Where a count is refused: by its fields. */
  reasons?: { path: string; message: string }[];
  place?: { variantId: string; unitId: string; stateName: string; facts: UnitFacts };
  tags?: string[];
  /** Name of its state, where the file has a column for it. */
  stateName?: string;
  /** What else is kept of it, by kind: the log of its opening. */
  documents?: CandidateDocument[];
  attachments?: CandidateAttachment[];
  runs?: CandidateRun[];
}

/** A run that comes with a machine. */
export interface CandidateRun {
  /** Where it stood, for messages. */
  label: string;
  read(): Promise<unknown>;
  /** Bytes of one of its logs; null where it did not come along. */
  log(name: string): AsyncIterable<Uint8Array> | null;
}

/** A document that comes with a machine. */
export interface CandidateDocument {
  kind: KindName;
  value: unknown;
}

/** A photo or paper that comes with a machine. */
export interface CandidateAttachment extends z.infer<typeof attachmentEntry> {
  read(): Promise<Buffer>;
}

/** One that is read when its turn comes, so that there is never more than one of them in memory. */
export type LazyCandidate = () => Promise<Candidate>;

/** What a file holds; records and photos are read when their turn comes. */
export interface Contents {
  candidates: LazyCandidate[];
  close(): void;
}

/** How rows find the machines of this library that they change. */
export interface Finder {
  byId(id: string): Promise<CaseRecord | null>;
  /** The only machine of that maker, model and variant. */
  byName(identity: Identity): Promise<{ id: string; record: CaseRecord } | null>;
}

const MAX_RECORD = MAX_DOCUMENT_BYTES;
const MAX_LIST = 25 * MAX_RECORD;
const MAX_ROWS = 50_000;
const MAX_RECORDS = 10_000;
const MAX_UNPACKED = 200 * MAX_RECORD;
/** Of a file with many records: each is one level further in. */
const LIST_BOUNDS = { depth: DOCUMENT_BOUNDS.depth + 1, values: 2_000_000 };

const attachmentEntry = z.object({
  file: z.string().max(300),
  id: z.uuid(),
  path: z.string().max(200),
  name: z.string().min(1).max(200),
  caption: z.string().max(500),
  takenAt: z.string().max(30).nullable(),
  focalPx: z.number().positive().max(1e6).nullable().default(null),
  /** What is marked in it; what cannot be taken is named and left out. */
  marks: z.unknown().optional(),
});

/** Kinds that travel beside a record as files of their own. */
const TRAVELLING = KIND_NAMES.filter(
  (k) => k !== 'record' && kindNamed(k).travels?.as === 'file',
) as [KindName, ...KindName[]];

export const MANIFEST = 'manifest.json';
export const manifestSchema = z.object({
  format: z.literal('zugluft-library'),
  formatVersion: z.literal(1),
  machines: z
    .array(
      z.object({
        file: z.string().max(300),
        log: z.string().max(300).nullable().default(null),
        documents: z
          .array(z.object({ kind: z.enum(TRAVELLING), file: z.string().max(300) }))
          .max(20)
          .default([]),
        id: z.uuid(),
        variantId: z.uuid(),
        unitId: z.uuid(),
        stateName: z.string().min(1).max(80),
        tags: z.array(z.string().min(1).max(40)).max(30).default([]),
        unit: unitFacts.default({}),
        attachments: z.array(attachmentEntry).max(MAX_ATTACHMENTS).default([]),
        runs: z
          .array(z.object({ folder: z.string().max(300) }))
          .max(MAX_RUNS)
          .default([]),
      }),
    )
    .max(MAX_RECORDS),
});

function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new Unreadable('is no text in UTF-8');
  }
}

/** JSON within bounds. */
function readJson(bytes: Uint8Array, most = MAX_RECORD, bounds = DOCUMENT_BOUNDS): unknown {
  if (bytes.length > most) throw new Unreadable(`is larger than ${most / MAX_RECORD} MB`);
  const text = textOf(bytes);
  const fault = jsonFault(text, bounds);
  if (fault) throw new Unreadable(fault);
  try {
    return JSON.parse(text) as unknown;
  } catch {
    throw new Unreadable('is not well-formed JSON');
  }
}

/** One whose reading fails is refused by its name, and the others go on. */
const attempt =
  (label: string, make: () => Promise<Candidate> | Candidate): LazyCandidate =>
  async () => {
    try {
      return await make();
    } catch (cause) {
      return { label, refused: (cause as Error).message };
    }
  };

/**
 * What a file holds, by its content and not its name: one record or a list of them as JSON, rows as CSV, a library as zip.
 *
 * @param received the file
 * @param name what it is called, for messages
 * @param finder of machines of this library, for rows that change one
 * @throws Problem 422 where the file as a whole cannot be read
 */
export async function readImport(
  received: Received,
  name: string,
  finder: Finder,
): Promise<Contents> {
  if (received.bytes === 0) throw new Problem(422, 'Empty', 'the file is empty');
  if (!received.zip) {
    const candidates = readText(await readWhole(received), name, finder);
    return { candidates, close: () => undefined };
  }
  const zip = await openZip(received.path);
  try {
    return { candidates: await readZip(zip), close: zip.close };
  } catch (cause) {
    zip.close();
    throw cause;
  }
}

function readText(bytes: Uint8Array, name: string, finder: Finder): LazyCandidate[] {
  if (bytes.includes(0)) {
    throw new Problem(422, 'Unknown file', 'the file is neither JSON nor CSV nor a zip');
  }
  const first = bytes.find((b) => b > 0x20 && b !== 0xef && b !== 0xbb && b !== 0xbf);
  if (first === 0x7b || first === 0x5b) {
    let read: unknown;
    try {
      // a list is one level further out
      read = readJson(bytes, MAX_LIST, first === 0x5b ? LIST_BOUNDS : DOCUMENT_BOUNDS);
    } catch (cause) {
      throw new Problem(422, 'Not read', `${name} ${(cause as Error).message}`);
    }
    const list = Array.isArray(read) ? read : [read];
    if (list.length > MAX_RECORDS) {
      throw new Problem(422, 'Too much', `more than ${MAX_RECORDS} records`);
    }
    return list.map((record, i) => {
      const label = list.length === 1 ? name : `${name}, record ${i + 1}`;
      return attempt(label, () =>
        isCount(record) ? countCandidate(label, record) : { label, record },
      );
    });
  }
  return readCsv(bytes, name, finder);
}

/** The run in a folder of a zip. */
export const runIn = (zip: ZipFiles, folder: string): CandidateRun => ({
  label: `${folder}${RUN_FILE}`,
  read: async () => readJson(await zip.read(`${folder}${RUN_FILE}`)),
  log: (name) => (zip.names.includes(`${folder}${name}`) ? zip.pieces(`${folder}${name}`) : null),
});

async function readZip(zip: ZipFiles): Promise<LazyCandidate[]> {
  const unpacked = zip.names
    .filter((name) => name.endsWith('.json'))
    .reduce((sum, name) => sum + zip.bytesOf(name), 0);
  if (unpacked > MAX_UNPACKED) {
    throw new Problem(422, 'Too much', 'the zip unpacks to more than is taken');
  }
  const record = async (file: string): Promise<unknown> => readJson(await zip.read(file));
  const document = async (kind: KindName, file: string): Promise<CandidateDocument> => {
    const value = kindNamed(kind).read(await record(file));
    if (value === null) throw new Error(`${file} is no ${kindNamed(kind).title}`);
    return { kind, value };
  };
  if (!zip.names.includes(MANIFEST)) {
    return zip.names
      .filter((file) => file.endsWith('.json'))
      .slice(0, MAX_RECORDS)
      .map((file) => attempt(file, async () => ({ label: file, record: await record(file) })));
  }
  let list: z.infer<typeof manifestSchema>;
  try {
    list = manifestSchema.parse(readJson(await zip.read(MANIFEST), MAX_LIST, LIST_BOUNDS));
  } catch {
    throw new Problem(422, 'Broken library', `${MANIFEST} in the zip is not as it should be`);
  }
  return list.machines.map(
    ({ file, log, documents, id, variantId, unitId, stateName, tags, unit, attachments, runs }) =>
      attempt(file, async () => ({
        label: file,
        id,
        record: await record(file),
        place: { variantId, unitId, stateName, facts: unit },
        tags,
        documents: await Promise.all(
          [...(log === null ? [] : [{ kind: 'log' as const, file: log }]), ...documents].map((d) =>
            document(d.kind, d.file),
          ),
        ),
        attachments: attachments.map((a) => ({ ...a, read: () => zip.read(a.file) })),
        runs: runs.map(({ folder }) => runIn(zip, folder)),
      })),
  );
}

/** Cells as they were before a spreadsheet was kept from running them, under names without spaces around. */
function plain(row: Row): Row {
  return Object.fromEntries(
    Object.entries(row).map(([name, cell]) => [name.trim(), plainCell(String(cell ?? ''))]),
  );
}

/** A machine made of what was counted. */
function countCandidate(label: string, input: unknown): Candidate {
  const { record, issues } = parseCount(input);
  if (record) return { label, record: JSON.parse(JSON.stringify(record)) as CaseRecord };
  return {
    label,
    record: { identity: input },
    refused: issues[0]!.message,
    reasons: issues.map(({ path, message }) => ({ path, message })),
  };
}

/** A state's name within bounds. */
function checkedName(name: string): string {
  const read = stateNameSchema.safeParse(name);
  if (!read.success) throw new Error(`the state ${read.error.issues[0]!.message}`);
  return read.data;
}

function readCsv(bytes: Uint8Array, name: string, finder: Finder): LazyCandidate[] {
  let text: string;
  try {
    text = textOf(bytes).replace(/^\ufeff/, '');
  } catch (cause) {
    throw new Problem(422, 'Not read', `${name} ${(cause as Error).message}`);
  }
  const csv = parsedCsv(text);
  const isCounts = isCountHeader(csv.header);
  const kind = fileKind(csv.header);
  if (!kind && !isCounts) {
    throw new Problem(
      422,
      'Unknown columns',
      'the first line names none of the columns that an export has',
    );
  }
  const rows = placedRows(csv, text, name);
  if (isCounts) {
    return rows.map(({ row, line }) => {
      const label = `${name}, line ${line}`;
      return attempt(label, () => countCandidate(label, countOfRow(plain(row))));
    });
  }
  return kind === 'machines'
    ? rows.map((r) => machineOfRow(r, name, finder))
    : machinesOfParts(rows, name, finder);
}

function parsedCsv(text: string) {
  const { data, errors, meta } = Papa.parse<Row>(text, { header: true, preview: MAX_ROWS + 1 });
  if (data.length > MAX_ROWS) throw new Problem(422, 'Too much', `more than ${MAX_ROWS} rows`);
  return { data, errors, header: meta.fields ?? [] };
}

/** A row of a file, and the line on which it begins. */
interface PlacedRow {
  row: Row;
  line: number;
}

/**
 * The rows of a CSV with their lines.
 *
 * @throws Problem 422 that names the line where any of it cannot be read: a quote that is left open swallows all rows after it, so
 * that nothing of such a file is what it seems
 */
function placedRows(
  { data, errors, header }: ReturnType<typeof parsedCsv>,
  text: string,
  name: string,
): PlacedRow[] {
  const newlines = (cell: unknown) => String(cell ?? '').split(/\r\n|\r|\n/).length - 1;
  let line = 2 + header.reduce((sum, f) => sum + newlines(f), 0);
  const isEmpty = (row: Row) => Object.values(row).every((c) => String(c ?? '').trim() === '');
  const all = data.map((row): PlacedRow => {
    const placed = { row, line };
    line += 1 + Object.values(row).reduce((sum, cell) => sum + newlines(cell), 0);
    return placed;
  });
  // a file without any delimiter has one column, and an empty line is no row with too few of them
  const [broken] = errors.filter(
    (e) =>
      e.type === 'Quotes' ||
      (e.type === 'FieldMismatch' &&
        e.row !== undefined &&
        all[e.row] &&
        !isEmpty(all[e.row]!.row)),
  );
  if (broken) {
    const at =
      broken.index === undefined
        ? (all[broken.row ?? 0]?.line ?? 1)
        : text.slice(0, broken.index).split(/\r\n|\r|\n/).length;
    throw new Problem(
      422,
      'Not read',
      `${name}, line ${at}: ${CSV_WORDS[broken.code] ?? broken.message.toLowerCase()}. Nothing of the file was taken`,
    );
  }
  return all.filter(({ row }) => !isEmpty(row));
}

const CSV_WORDS: Record<string, string> = {
  MissingQuotes: 'a quote is opened and never closed',
  InvalidQuotes: 'something follows a quote that was closed',
  TooFewFields: 'the row has fewer columns than the first line',
  TooManyFields: 'the row has more columns than the first line',
};

function machineOfRow({ row, line }: PlacedRow, name: string, finder: Finder): LazyCandidate {
  const label = `${name}, line ${line}`;
  return attempt(label, async () => {
    const id = row['id']?.trim() ?? '';
    const known = id ? await finder.byId(id) : null;
    const before = known
      ? { id, record: known }
      : await finder.byName({
          maker: plainCell(row['identity.maker'] ?? '').trim(),
          model: plainCell(row['identity.model'] ?? '').trim(),
          variant: plainCell(row['identity.variant'] ?? '').trim(),
        });
    const start: CaseRecord = before?.record ?? { format: 'zugluft-record', formatVersion: 1 };
    const record = applyMachineRow(start, row);
    const stateName = plainCell(row['state'] ?? '').trim();
    return {
      label,
      ...(before ? { id: before.id } : {}),
      ...(stateName ? { stateName: checkedName(stateName) } : {}),
      record,
    };
  });
}

/** Rows of parts by their machines: a row that cannot be taken refuses its whole machine, by its line. */
function machinesOfParts(
  rows: readonly PlacedRow[],
  name: string,
  finder: Finder,
): LazyCandidate[] {
  const byId = new Map<string, PlacedRow[]>();
  for (const placed of rows) {
    const id = placed.row['id']?.trim() ?? '';
    const own = byId.get(id);
    if (own) own.push(placed);
    else byId.set(id, [placed]);
  }
  return [...byId].map(([id, own]) => {
    const label = `${name}, line ${own[0]!.line}`;
    return attempt(label, async () => {
      const before = id ? await finder.byId(id) : null;
      if (!before) throw new Error('the row’s machine is not in this library');
      const edits = editParts(before);
      const reasons: { path: string; message: string }[] = [];
      for (const { row, line } of own) {
        try {
          edits.apply(row);
        } catch (cause) {
          reasons.push({ path: `line ${line}`, message: (cause as Error).message });
        }
      }
      if (reasons.length) return { label, record: before, refused: reasons[0]!.message, reasons };
      return { label, id, record: edits.record() };
    });
  });
}
