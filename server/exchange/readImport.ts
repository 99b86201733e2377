import { KIND_NAMES, kindNamed, type KindName } from '@zugluft/core/documents/kinds';
import { unitFacts } from '@zugluft/core/family/unitFacts';
import { isCount } from '@zugluft/core/count/countSchema';
import { DOCUMENT_BOUNDS, jsonFault, MAX_DOCUMENT_BYTES } from '@zugluft/core/exchange/jsonFault';
import { MAX_RUNS } from '@zugluft/core/library/runAnswers';
import { MAX_ATTACHMENTS } from '@zugluft/core/library/attachment';
import { z } from 'zod';
import { Problem } from '../security/problem';
import { RUN_FILE } from '../runs/runFiles';
import {
  attachmentEntry,
  attempt,
  countCandidate,
  type CandidateDocument,
  type CandidateRun,
  type LazyCandidate,
} from './candidate';
import { readCsv, type Finder } from './readCsv';
import { textOf } from './textOf';
import { readWhole, type Received } from './receiveFile';
import { openZip, Unreadable, type ZipFiles } from './unzip';

/** What a file holds; records and photos are read when their turn comes. */
export interface Contents {
  candidates: LazyCandidate[];
  close(): void;
}

const MAX_RECORD = MAX_DOCUMENT_BYTES;
const MAX_LIST = 25 * MAX_RECORD;
const MAX_RECORDS = 10_000;
const MAX_UNPACKED = 200 * MAX_RECORD;
/** Of a file with many records: each is one level further in. */
const LIST_BOUNDS = { depth: DOCUMENT_BOUNDS.depth + 1, values: 2_000_000 };

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
