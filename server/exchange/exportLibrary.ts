import { printedDocument } from '@zugluft/core/exchange/jsonFault';
import Papa from 'papaparse';
import { MACHINE_HEADER, machineRow, PART_HEADER, partRows } from '@zugluft/core/exchange/csvRows';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { configuredColumns, wattsColumns } from '@zugluft/core/library/answers';
import type { AttachmentType } from '@zugluft/core/library/attachment';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { KeptRun } from '@zugluft/core/library/runAnswers';
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
import { addRun, zipTo } from '../runs/runFiles';
import type { RunLogs } from '../runs/runLogs';
import type { RunStore } from '../runs/runStore';
import type { RunSummaries } from '../runs/runSummaries';
import type { EditionTravel } from '../reports/editionTravel';
import { Problem } from '../security/problem';
import { MANIFEST } from './manifest';
import { libraryMachines } from './libraryPages';
import { packedText, type PackedText } from './packedText';
import { steadyOf } from './steadyLines';
import { MAX_ENTRY } from './unzip';

const CSV_FILES = ['machines', 'parts', 'steady'] as const;
/** Documents of a machine that travel as files of their own, its record apart. */
const TRAVELLING = KIND_NAMES.filter((name) => {
  const { belongsTo, travels } = kindNamed(name);
  return name !== 'record' && belongsTo === 'machine' && travels?.as === 'file';
});
const WATTS_DECIMALS = 2;
const stripUnit = DOCUMENT_KINDS.unit.travels!.strip;
const ENDING: Record<AttachmentType, string> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'application/pdf': 'pdf',
};

/** What is published or measured of machines and goes out with the library. */
export interface AlsoExported {
  editions: EditionTravel;
  runs: RunStore;
  summaries: RunSummaries;
  logs: RunLogs;
}

export const line = (cells: string[]) => `${Papa.unparse([cells], { newline: '\r\n' })}\r\n`;

/** How the CSV of a kind is written: its first line, and the lines of a machine. */
interface CsvOf {
  header: string;
  linesOf(machine: { row: MachineRow; record: CaseRecord }): string;
}

/** The CSV with one row per machine, or per part. */
async function csvOf(watts: WattsKeeper, kind: 'machines' | 'parts'): Promise<CsvOf> {
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
  return {
    header: `\ufeff${line(header)}`,
    linesOf({ row, record }) {
      const rows =
        kind === 'machines'
          ? [{ ...machineRow(row.id, record, row.stateName), ...computed(row) }]
          : partRows(row.id, record);
      return rows.map((r) => line(header.map((h) => r[h] ?? ''))).join('');
    },
  };
}

/** Lines of the CSV with one row per machine, or per part. */
export async function* csvLines(
  db: Database,
  documents: DocumentStore,
  watts: WattsKeeper,
  kind: 'machines' | 'parts',
): AsyncGenerator<string> {
  const csv = await csvOf(watts, kind);
  yield csv.header;
  for await (const machine of libraryMachines(db, documents)) yield csv.linesOf(machine);
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
 * burned in, the log of its opening, its runs with their logs, its editions, all CSV files, and a list that brings variants, units and tags back. Serial numbers stay out.
 */
export async function writeLibraryZip(
  db: Database,
  documents: DocumentStore,
  attachments: AttachmentStore,
  watts: WattsKeeper,
  also: AlsoExported,
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
  const addDocuments = (texts: ReadonlyMap<KindName, string>, base: string) => {
    const files: { kind: KindName; file: string }[] = [];
    for (const name of TRAVELLING) {
      const text = texts.get(name);
      const { travels } = kindNamed(name);
      if (text === undefined || travels?.as !== 'file') continue;
      const file = `${travels.folder}/${base}.json`;
      try {
        add(file, printedDocument(travels.strip(documents.readValue(name, text))));
      } catch (cause) {
        if (!(cause instanceof Problem)) throw cause;
        // one that cannot be read keeps nothing else from going out
        continue;
      }
      files.push({ kind: name, file });
    }
    return files;
  };
  /** Runs with their logs, as far as an import would take these. */
  const addRuns = async (all: readonly KeptRun[], base: string) => {
    const entries: { folder: string }[] = [];
    for (const kept of all) {
      if (out.destroyed) return entries;
      const folder = `runs/${base}/${String(entries.length + 1).padStart(3, '0')}/`;
      const left = await addRun(zip, kept, also.logs, folder, MAX_ENTRY);
      entries.push({ folder, ...(left.length ? { left } : {}) });
      await drained();
    }
    return entries;
  };
  /** Editions byte for byte, each with what it said. */
  const addEditions = async (machineId: string, base: string) => {
    const entries: object[] = [];
    const missing: { number: number; why: string }[] = [];
    for await (const { zip: bytes, source, ...edition } of also.editions.of(machineId)) {
      if (out.destroyed) return { entries, missing };
      const { number } = edition;
      if (!bytes || bytes.length > MAX_ENTRY) {
        missing.push({ number, why: bytes ? 'it is too large' : 'its files are not here' });
        continue;
      }
      const at = `editions/${base}/${String(number).padStart(3, '0')}`;
      zip.addPacked(`${at}.zip`, bytes);
      add(`${at}.json`, `${JSON.stringify(source)}\n`);
      entries.push({ ...edition, files: `${at}.zip`, said: `${at}.json` });
      await drained();
    }
    return { entries, missing };
  };
  const csv = {
    machines: await csvOf(watts, 'machines'),
    parts: await csvOf(watts, 'parts'),
    steady: steadyOf(also.summaries),
  };
  const texts = { machines: packedText(), parts: packedText(), steady: packedText() };
  for (const kind of CSV_FILES) await texts[kind].write(csv[kind].header);
  const list = packedText();
  let count = 0;
  const left: object[] = [];
  const leave = ({ id, maker, model, variant }: MachineRow, why: string) =>
    left.push({ id, maker, model, variant, why });
  for await (const machine of libraryMachines(db, documents, TRAVELLING, leave)) {
    if (out.destroyed) return;
    const { row, record } = machine;
    const base = `${fileName(record)}-${row.id.slice(0, 8)}`;
    const file = `records/${base}.json`;
    const files = addDocuments(machine.documents, base);
    const photos = machine.hasPhotos ? await addPhotos(row.id, base) : { entries: [], missing: [] };
    const kept = machine.hasRuns ? await also.runs.all(row.id) : [];
    const editions = machine.hasEditions
      ? await addEditions(row.id, base)
      : { entries: [], missing: [] };
    const entry = {
      file,
      log: files.find((f) => f.kind === 'log')?.file ?? null,
      documents: files.filter((f) => f.kind !== 'log'),
      id: row.id,
      variantId: row.variantId,
      unitId: row.unitId,
      stateName: row.stateName,
      tags: machine.tags,
      unit: stripUnit(machine.facts),
      attachments: photos.entries,
      ...(photos.missing.length ? { missing: photos.missing } : {}),
      runs: await addRuns(kept, base),
      editions: editions.entries,
      ...(editions.missing.length ? { missingEditions: editions.missing } : {}),
    };
    await list.write(`${count++ ? ',' : ''}\n  ${JSON.stringify(entry)}`);
    add(file, printedDocument(record));
    await texts.machines.write(csv.machines.linesOf(machine));
    await texts.parts.write(csv.parts.linesOf(machine));
    for (const run of kept) await texts.steady.write(await csv.steady.linesOf(machine, run));
    await drained();
  }
  for (const kind of CSV_FILES) await zip.addPieces(`${kind}.csv`, texts[kind].read());
  await zip.addPieces(MANIFEST, listAround(list, left));
  await zip.end();
}

/** The list of a library; machines whose record could not be read are named beside it. */
async function* listAround(
  list: PackedText,
  left: readonly object[],
): AsyncGenerator<Uint8Array | string> {
  yield '{"format":"zugluft-library","formatVersion":1,"machines":[';
  yield* list.read();
  yield `\n]${left.length ? `,"left":${JSON.stringify(left)}` : ''}}\n`;
}
