import { kindNamed, type KindName } from '@zugluft/core/documents/kinds';
import { MAX_DOCUMENT_BYTES } from '@zugluft/core/exchange/jsonFault';
import { Problem } from '../security/problem';
import { RUN_FILE } from '../runs/runFiles';
import {
  attempt,
  countCandidate,
  type CandidateDocument,
  type CandidateRun,
  type LazyCandidate,
} from './candidate';
import { csvCandidates, type Finder } from './csvCandidates';
import { MANIFEST, MAX_MACHINES, type ListedMachine } from './manifest';
import type { Received } from './receiveFile';
import { readJson, type DoTextJob, type TextAnswer, type TextPieces } from './textPieces';
import { openZip, type ZipFiles } from './unzip';

/** What a file holds; records and photos are read when their turn comes. */
export interface Contents {
  candidates: LazyCandidate[];
  close(): void;
}

const MAX_UNPACKED = 200 * MAX_DOCUMENT_BYTES;

/**
 * What a file holds, by its content and not its name: one record or a list of them as JSON, rows as CSV, a library as zip.
 *
 * @param received the file
 * @param name what it is called, for messages
 * @param finder of machines of this library, for rows that change one
 * @param parse takes a large text apart
 * @throws Problem 422 where the file as a whole cannot be read
 */
export async function readImport(
  received: Received,
  name: string,
  finder: Finder,
  parse: DoTextJob,
): Promise<Contents> {
  if (received.bytes === 0) throw new Problem(422, 'Empty', 'the file is empty');
  if (!received.zip) {
    const answer = unproblematic(await parse({ do: 'text', path: received.path, name }));
    if (!('pieces' in answer)) throw new Error('the thread that parses answered something else');
    return { candidates: candidatesOf(answer.pieces, name, finder), close: () => undefined };
  }
  const zip = await openZip(received.path);
  try {
    return { candidates: await readZip(zip, parse), close: zip.close };
  } catch (cause) {
    zip.close();
    throw cause;
  }
}

function unproblematic(answer: TextAnswer): Exclude<TextAnswer, { problem: unknown }> {
  if (!('problem' in answer)) return answer;
  const { status, title, detail } = answer.problem;
  throw new Problem(status, title, detail);
}

function candidatesOf(pieces: TextPieces, name: string, finder: Finder): LazyCandidate[] {
  if (pieces.kind !== 'records') return csvCandidates(pieces, name, finder);
  const { records } = pieces;
  return records.map((piece, i) => {
    const label = records.length === 1 ? name : `${name}, record ${i + 1}`;
    return attempt(label, () => {
      if ('refused' in piece) return { label, refused: piece.refused };
      const record = JSON.parse(piece.text) as unknown;
      return piece.isCount ? countCandidate(label, record) : { label, record };
    });
  });
}

/** The run in a folder of a zip. */
export const runIn = (zip: ZipFiles, folder: string): CandidateRun => ({
  label: `${folder}${RUN_FILE}`,
  read: async () => readJson(await zip.read(`${folder}${RUN_FILE}`)),
  log: (name) => (zip.names.includes(`${folder}${name}`) ? zip.pieces(`${folder}${name}`) : null),
});

async function readZip(zip: ZipFiles, parse: DoTextJob): Promise<LazyCandidate[]> {
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
      .slice(0, MAX_MACHINES)
      .map((file) => attempt(file, async () => ({ label: file, record: await record(file) })));
  }
  const answer = unproblematic(await parse({ do: 'list', bytes: await zip.read(MANIFEST) }));
  if (!('machines' in answer)) throw new Error('the thread that parses answered something else');
  return answer.machines.map((text, i) =>
    attempt(`machine ${i + 1} of the list`, async () => {
      const { file, log, documents, ...listed } = JSON.parse(text) as ListedMachine;
      const { id, variantId, unitId, stateName, tags, unit, attachments, runs, editions } = listed;
      try {
        return {
          label: file,
          id,
          record: await record(file),
          place: { variantId, unitId, stateName, facts: unit },
          tags,
          documents: await Promise.all(
            [...(log === null ? [] : [{ kind: 'log' as const, file: log }]), ...documents].map(
              (d) => document(d.kind, d.file),
            ),
          ),
          attachments: attachments.map((a) => ({ ...a, read: () => zip.read(a.file) })),
          runs: runs.map(({ folder }) => runIn(zip, folder)),
          editions: editions
            .sort((a, b) => a.number - b.number)
            .map(({ files, said, ...edition }) => ({
              ...edition,
              label: files,
              said: () => record(said),
              files: () => zip.read(files),
            })),
        };
      } catch (cause) {
        return { label: file, refused: (cause as Error).message };
      }
    }),
  );
}
