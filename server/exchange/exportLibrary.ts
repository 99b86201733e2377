import { printedDocument } from '@zugluft/core/exchange/jsonFault';
import Papa from 'papaparse';
import { MACHINE_HEADER, machineRow, PART_HEADER, partRows } from '@zugluft/core/exchange/csvRows';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { configuredColumns, wattsColumns } from '@zugluft/core/library/answers';
import type { AttachmentType } from '@zugluft/core/library/attachment';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { Op } from 'sequelize';
import type { Writable } from 'node:stream';
import type { AttachmentStore } from '../attachments/attachmentStore';
import type { Database } from '../database/openDatabase';
import type { MachineRow } from '../database/models';
import type { WattsKeeper } from '../derived/wattsKeeper';
import {
  DOCUMENT_KINDS,
  KIND_NAMES,
  kindNamed,
  type KindName,
} from '@zugluft/core/documents/kinds';
import type { DocumentStore } from '../documents/documentStore';
import { toUnit } from '../machines/machineRows';
import { addRun, zipTo } from '../runs/runFiles';
import type { RunLogs } from '../runs/runLogs';
import type { RunStore } from '../runs/runStore';
import type { RunSummaries } from '../runs/runSummaries';
import { Problem } from '../security/problem';
import { MANIFEST } from './readImport';
import { steadyLines } from './steadyLines';
import { MAX_ENTRY } from './unzip';

const AT_ONCE = 100;
const WATTS_DECIMALS = 2;
const stripUnit = DOCUMENT_KINDS.unit.travels!.strip;
const ENDING: Record<AttachmentType, string> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'application/pdf': 'pdf',
};

/** Runs that go out with the library. */
export interface ExportedRuns {
  store: RunStore;
  summaries: RunSummaries;
  logs: RunLogs;
}

/** Every machine that is not put aside, with its record, in pages. */
export async function* machines(
  db: Database,
  documents: DocumentStore,
): AsyncGenerator<{ row: MachineRow; record: CaseRecord }> {
  for (let after = ''; ;) {
    const rows = await db.models.Machine.findAll({
      where: { putAsideAt: null, id: { [Op.gt]: after } },
      order: [['id', 'ASC']],
      limit: AT_ONCE,
    });
    if (!rows.length) return;
    for (const row of rows) {
      yield { row, record: (await documents.read('record', row.id)).value };
    }
    after = rows[rows.length - 1]!.id;
  }
}

export const line = (cells: string[]) => `${Papa.unparse([cells], { newline: '\r\n' })}\r\n`;

/** Lines of the CSV with one row per machine, or per part. */
export async function* csvLines(
  db: Database,
  documents: DocumentStore,
  watts: WattsKeeper,
  kind: 'machines' | 'parts',
): AsyncGenerator<string> {
  await watts.ready();
  const caps = kind === 'machines' ? watts.caps() : [];
  const header = [
    ...(kind === 'machines' ? MACHINE_HEADER : PART_HEADER),
    ...Object.keys(wattsColumns(caps, () => null)),
    ...Object.keys(configuredColumns(caps, () => null)),
  ];
  /** Watts at the laboratory's caps with their bands; what is still being computed is left empty. */
  const computed = (row: MachineRow) => {
    const now = watts.of(row);
    const at = (cap: Cap) => (now.pending ? null : now.at(cap));
    const columns = { ...wattsColumns(caps, at), ...configuredColumns(caps, at) };
    return Object.fromEntries(
      Object.entries(columns).map(([name, value]) => [name, value?.toFixed(WATTS_DECIMALS) ?? '']),
    );
  };
  yield `\ufeff${line(header)}`;
  for await (const { row, record } of machines(db, documents)) {
    const rows =
      kind === 'machines'
        ? [{ ...machineRow(row.id, record, row.stateName), ...computed(row) }]
        : partRows(row.id, record);
    for (const r of rows) yield line(header.map((h) => r[h] ?? ''));
  }
}

/** A name for a file: letters and digits of what the machine is called. */
export function fileName(record: CaseRecord): string {
  const { maker, model, variant } = record.identity ?? {};
  const words = [maker, model, variant].filter(Boolean).join(' ');
  return (
    words
      .normalize('NFKD')
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 80)
      .toLowerCase() || 'machine'
  );
}

/**
 * The whole library as a zip, written while it is made: a record each, its photos and papers that may go out with their boxes
 * burned in, the log of its opening, its runs with their logs, all CSV files, and a list that brings variants, units and tags back. Serial numbers stay out.
 */
export async function writeLibraryZip(
  db: Database,
  documents: DocumentStore,
  attachments: AttachmentStore,
  watts: WattsKeeper,
  runs: ExportedRuns,
  out: Writable,
): Promise<void> {
  const zip = zipTo(out);
  const { add, drained } = zip;
  const addPhotos = async (machineId: string, folder: string) => {
    const entries: object[] = [];
    const missing: { name: string; id: string; why: string }[] = [];
    for (const { id, path, name, caption, takenAt, focalPx, type } of await attachments.exported(
      machineId,
    )) {
      if (out.destroyed) return { entries, missing };
      const file = `photos/${folder}/${String(entries.length + 1).padStart(3, '0')}.${ENDING[type]}`;
      const bytes = await attachments.copy(machineId, id).then(
        (copy) => copy.bytes,
        (cause: unknown) => {
          const why = cause instanceof Problem ? cause.message : 'it cannot be read';
          missing.push({ name, id, why });
          return null;
        },
      );
      // one that is not here keeps nothing else from going out
      if (!bytes) continue;
      // photos are packed already
      zip.addPacked(file, bytes);
      const marks = await documents.find('marks', id).catch(() => null);
      entries.push({
        file,
        id,
        path,
        name,
        caption,
        takenAt,
        ...(focalPx === null ? {} : { focalPx }),
        ...(marks?.revision ? { marks: marks.value } : {}),
      });
      await drained();
    }
    return { entries, missing };
  };
  /** Documents of a machine that travel as files of their own, its record apart. */
  const addDocuments = async (machineId: string, base: string) => {
    const files: { kind: KindName; file: string }[] = [];
    for (const name of KIND_NAMES) {
      const { belongsTo, travels } = kindNamed(name);
      if (name === 'record' || belongsTo !== 'machine' || travels?.as !== 'file') continue;
      // one that cannot be read keeps nothing else from going out
      const kept = await documents.find(name, machineId).catch(() => null);
      if (!kept?.revision) continue;
      const file = `${travels.folder}/${base}.json`;
      add(file, printedDocument(travels.strip(kept.value)));
      files.push({ kind: name, file });
    }
    return files;
  };
  /** Runs with their logs, as far as an import would take these. */
  const addRuns = async (machineId: string, base: string) => {
    const entries: { folder: string }[] = [];
    for (const kept of await runs.store.all(machineId)) {
      if (out.destroyed) return entries;
      const folder = `runs/${base}/${String(entries.length + 1).padStart(3, '0')}/`;
      const left = await addRun(zip, kept, runs.logs, folder, MAX_ENTRY);
      entries.push({ folder, ...(left.length ? { left } : {}) });
      await drained();
    }
    return entries;
  };
  const list: object[] = [];
  for await (const { row, record } of machines(db, documents)) {
    if (out.destroyed) return;
    const base = `${fileName(record)}-${row.id.slice(0, 8)}`;
    const file = `records/${base}.json`;
    const unit = toUnit((await db.models.Unit.findByPk(row.unitId))!);
    const tags = await db.models.MachineTag.findAll({ where: { machineId: row.id }, raw: true });
    const files = await addDocuments(row.id, base);
    const photos = await addPhotos(row.id, base);
    list.push({
      file,
      log: files.find((f) => f.kind === 'log')?.file ?? null,
      documents: files.filter((f) => f.kind !== 'log'),
      id: row.id,
      variantId: row.variantId,
      unitId: row.unitId,
      stateName: row.stateName,
      tags: tags.map((t) => t.tag).sort(),
      unit: stripUnit(unit.facts),
      attachments: photos.entries,
      ...(photos.missing.length ? { missing: photos.missing } : {}),
      runs: await addRuns(row.id, base),
    });
    add(file, printedDocument(record));
    await drained();
  }
  for (const kind of ['machines', 'parts'] as const) {
    await zip.addPieces(`${kind}.csv`, csvLines(db, documents, watts, kind));
  }
  await zip.addPieces('steady.csv', steadyLines(db, documents, runs.store, runs.summaries));
  add(
    MANIFEST,
    JSON.stringify({ format: 'zugluft-library', formatVersion: 1, machines: list }, null, 1),
  );
  await zip.end();
}
