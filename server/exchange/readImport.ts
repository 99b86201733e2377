import Papa from 'papaparse';
import { KIND_NAMES, kindNamed, type KindName } from '@zugluft/core/documents/kinds';
import {
  stateName as stateNameSchema,
  unitFacts,
  type UnitFacts,
} from '@zugluft/core/family/unitFacts';
import { applyMachineRow, applyPartRow, fileKind, type Row } from '@zugluft/core/exchange/csvRows';
import { countOfRow, isCountHeader } from '@zugluft/core/count/countRow';
import { isCount } from '@zugluft/core/count/countSchema';
import { parseCount } from '@zugluft/core/count/parseCount';
import { plainCell } from '@zugluft/core/exchange/cells';
import { jsonDepth } from '@zugluft/core/exchange/jsonDepth';
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

/** What a file holds; its photos are read when their turn comes. */
export interface Contents {
  candidates: Candidate[];
  close(): void;
}

/** How rows find the machines of this library that they change. */
export interface Finder {
  byId(id: string): Promise<CaseRecord | null>;
  /** The only machine of that maker, model and variant. */
  byName(identity: Identity): Promise<{ id: string; record: CaseRecord } | null>;
}

const MAX_DEPTH = 32;
const MAX_RECORD = 1024 * 1024;
const MAX_ROWS = 50_000;
const MAX_RECORDS = 10_000;
const MAX_UNPACKED = 200 * MAX_RECORD;

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
function readJson(bytes: Uint8Array, most = MAX_RECORD): unknown {
  if (bytes.length > most) throw new Unreadable('is larger than 1 MB');
  const text = textOf(bytes);
  if (jsonDepth(text, MAX_DEPTH) > MAX_DEPTH) {
    throw new Unreadable(`is nested more than ${MAX_DEPTH} levels deep`);
  }
  try {
    return JSON.parse(text) as unknown;
  } catch {
    throw new Unreadable('is not well-formed JSON');
  }
}

const attempt = async (label: string, make: () => Promise<Candidate>): Promise<Candidate> => {
  try {
    return await make();
  } catch (cause) {
    if (cause instanceof Problem) throw cause;
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
    const candidates = await readText(await readWhole(received), name, finder);
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

async function readText(bytes: Uint8Array, name: string, finder: Finder): Promise<Candidate[]> {
  if (bytes.includes(0)) {
    throw new Problem(422, 'Unknown file', 'the file is neither JSON nor CSV nor a zip');
  }
  const first = bytes.find((b) => b > 0x20 && b !== 0xef && b !== 0xbb && b !== 0xbf);
  if (first === 0x7b || first === 0x5b) {
    let read: unknown;
    try {
      read = readJson(bytes, 25 * MAX_RECORD);
    } catch (cause) {
      throw new Problem(422, 'Not read', `${name} ${(cause as Error).message}`);
    }
    const list = Array.isArray(read) ? read : [read];
    if (list.length > MAX_RECORDS) {
      throw new Problem(422, 'Too much', `more than ${MAX_RECORDS} records`);
    }
    return list.map((record, i) => {
      const label = list.length === 1 ? name : `${name}, record ${i + 1}`;
      return isCount(record) ? countCandidate(label, record) : { label, record };
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

async function readZip(zip: ZipFiles): Promise<Candidate[]> {
  let unpacked = 0;
  const record = async (file: string): Promise<unknown> => {
    const bytes = await zip.read(file);
    unpacked += bytes.length;
    if (unpacked > MAX_UNPACKED) {
      throw new Problem(422, 'Too much', 'the zip unpacks to more than is taken');
    }
    return readJson(bytes);
  };
  const document = async (kind: KindName, file: string): Promise<CandidateDocument> => {
    const value = kindNamed(kind).read(await record(file));
    if (value === null) throw new Error(`${file} is no ${kindNamed(kind).title}`);
    return { kind, value };
  };
  const out: Candidate[] = [];
  if (!zip.names.includes(MANIFEST)) {
    const files = zip.names.filter((file) => file.endsWith('.json')).slice(0, MAX_RECORDS);
    for (const file of files) {
      out.push(await attempt(file, async () => ({ label: file, record: await record(file) })));
    }
    return out;
  }
  let list: z.infer<typeof manifestSchema>;
  try {
    list = manifestSchema.parse(readJson(await zip.read(MANIFEST), 25 * MAX_RECORD));
  } catch {
    throw new Problem(422, 'Broken library', `${MANIFEST} in the zip is not as it should be`);
  }
  for (const {
    file,
    log,
    documents,
    id,
    variantId,
    unitId,
    stateName,
    tags,
    unit,
    attachments,
    runs,
  } of list.machines) {
    out.push(
      await attempt(file, async () => ({
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
  return out;
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

async function readCsv(bytes: Uint8Array, name: string, finder: Finder): Promise<Candidate[]> {
  let text: string;
  try {
    text = textOf(bytes);
  } catch (cause) {
    throw new Problem(422, 'Not read', `${name} ${(cause as Error).message}`);
  }
  const { data, errors, meta } = Papa.parse<Row>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    preview: MAX_ROWS + 1,
  });
  if (data.length > MAX_ROWS) throw new Problem(422, 'Too much', `more than ${MAX_ROWS} rows`);
  if (isCountHeader(meta.fields ?? [])) {
    return data.map((row, i) => countCandidate(`${name}, line ${i + 2}`, countOfRow(plain(row))));
  }
  const kind = fileKind(meta.fields ?? []);
  if (!kind) {
    throw new Problem(
      422,
      'Unknown columns',
      'the first line names none of the columns that an export has',
    );
  }
  const broken = new Map(
    errors.filter((e) => e.row !== undefined).map((e) => [e.row!, e.message] as const),
  );
  const out: Candidate[] = [];
  const byId = new Map<string, Candidate>();
  for (const [i, row] of data.entries()) {
    const label = `${name}, line ${i + 2}`;
    const wrong = broken.get(i);
    if (wrong) {
      out.push({ label, refused: `the row cannot be read: ${wrong.toLowerCase()}` });
      continue;
    }
    const id = row['id']?.trim() ?? '';
    const known = byId.get(id);
    try {
      if (kind === 'machines') {
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
        out.push({
          label,
          ...(before ? { id: before.id } : {}),
          ...(stateName ? { stateName: checkedName(stateName) } : {}),
          record,
        });
        continue;
      }
      const before = known ? (known.record as CaseRecord) : id ? await finder.byId(id) : null;
      if (!before) throw new Error('the row’s machine is not in this library');
      const record = applyPartRow(before, row);
      if (known) known.record = record;
      else {
        const candidate = { label, id, record };
        byId.set(id, candidate);
        out.push(candidate);
      }
    } catch (cause) {
      out.push({ label, refused: (cause as Error).message });
    }
  }
  return out;
}
