import { setImmediate as nextTurn } from 'node:timers/promises';
import { isDiskFull } from '../database/unusable';
import { Problem } from '../security/problem';
import { diffRecords } from '@zugluft/core/family/diffRecords';
import { splitCase } from '@zugluft/core/family/splitCase';
import { withPhotos } from '@zugluft/core/photo/withPhotos';
import type { ImportItem, WhenChanged } from '@zugluft/core/library/answers';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { Transaction } from 'sequelize';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/openDatabase';
import type { MachineRow } from '../database/models';
import { variantIsFull } from '../machines/machineFamilies';
import { onlyOneNamed } from '../machines/machineList';
import type { DocumentStore } from '../documents/documentStore';
import { addMachine, addUnit, addVariant } from '../machines/machineRows';
import type { MachineStore } from '../machines/machineStore';
import type { AttachmentStore } from '../attachments/attachmentStore';
import type { EditionTravel } from '../reports/editionTravel';
import type { TakeRun } from '../runs/takeRun';
import type { Candidate, CandidateDocument, LazyCandidate } from './candidate';
import { takeInTurn } from './takeInTurn';

interface Planned {
  item: ImportItem;
  row: MachineRow | null;
}

const FIRST = 4;
const MAX_REASONS = 50;

/** Why something was not taken; a full disk ends the import, since nothing after it could be kept either. */
function reasonOf(cause: unknown): { path: string; message: string } {
  if (isDiskFull(cause)) throw cause;
  const message = cause instanceof Problem ? cause.message : 'it could not be kept';
  return { path: '', message };
}

/** What a record says it is called, also one that is refused. */
function nameOf(record: unknown): string {
  const identity = (record as { identity?: Record<string, unknown> } | null)?.identity ?? {};
  return [identity['maker'], identity['model'], identity['variant']]
    .filter((x) => typeof x === 'string' && x !== '')
    .map((x) => (x as string).slice(0, 80))
    .join(' ');
}

export type Importer = ReturnType<typeof createImporter>;

/** Says what an import would do, and does it. */
export function createImporter(
  db: Database,
  store: MachineStore,
  documents: DocumentStore,
  attachments: AttachmentStore,
  runs: TakeRun,
  editions: EditionTravel,
) {
  const { Machine, MachineTag, Variant, Unit } = db.models;

  const recordOf = async (row: MachineRow, transaction?: Transaction) =>
    (await documents.read('record', row.id, transaction)).value;

  /** The machine that a record means: by the library's id, else the only one of its maker, model and variant. */
  const match = async (candidate: Candidate, record: CaseRecord): Promise<MachineRow | null> => {
    if (candidate.id) {
      const row = await Machine.findByPk(candidate.id);
      if (row) return row;
      // from another library: its name alone does not make it one of ours
      return null;
    }
    return onlyOneNamed(db, record.identity ?? {});
  };

  const plan = async (candidate: Candidate): Promise<Planned> => {
    const item: ImportItem = {
      label: candidate.label,
      name: '',
      action: 'refused',
      reasons: [],
      machineId: null,
      changed: 0,
      first: [],
      photos: 0,
      runs: 0,
      editions: 0,
      log: null,
    };
    if (candidate.refused !== undefined) {
      item.reasons = (candidate.reasons ?? [{ path: '', message: candidate.refused }]).slice(
        0,
        MAX_REASONS,
      );
      item.name = nameOf(candidate.record);
      return { item, row: null };
    }
    const { record, issues, keepable } = parseRecord(candidate.record);
    item.name = nameOf(candidate.record);
    if (!record || !keepable) {
      item.reasons = issues
        .filter((i) => i.kind === 'impossible')
        .slice(0, MAX_REASONS)
        .map(({ path, message }) => ({ path, message }));
      return { item, row: null };
    }
    const row = await match(candidate, record);
    if (!row) item.action = 'new';
    else {
      const changes = diffRecords(await recordOf(row), record);
      item.machineId = row.id;
      item.action = changes.length ? 'changed' : 'same';
      item.changed = changes.length;
      item.first = changes.slice(0, FIRST);
      const { stateName } = candidate;
      if (stateName !== undefined && stateName !== row.stateName) {
        item.action = 'changed';
        item.changed++;
        item.first = [
          { path: 'state', before: row.stateName, after: stateName },
          ...item.first,
        ].slice(0, FIRST);
      }
    }
    for (const d of candidate.documents ?? []) {
      const state = await stateOf(d, item.machineId);
      if (d.kind === 'log') item.log = state;
    }
    for (const { id } of candidate.attachments ?? []) {
      if (!(await attachments.knows(id))) item.photos++;
    }
    item.runs = candidate.runs?.length ?? 0;
    const published = candidate.editions ?? [];
    const newest = row && published.length ? await editions.newest(row.id) : 0;
    item.editions = published.filter((e) => e.number > newest).length;
    return { item, row };
  };

  /** What a document that comes with a machine would be here. */
  const stateOf = async (
    { kind, value }: CandidateDocument,
    machineId: string | null,
  ): Promise<'new' | 'changed' | 'same'> => {
    const kept = machineId === null ? null : await documents.find(kind, machineId);
    if (!kept?.revision) return 'new';
    return diffRecords(kept.value, value).length ? 'changed' : 'same';
  };

  /** Documents of a candidate, each as one more revision where there is one already and changes are taken. */
  const addDocuments = async (candidate: Candidate, item: ImportItem, changed: WhenChanged) => {
    for (const d of candidate.documents ?? []) {
      const state = await stateOf(d, item.machineId);
      if (d.kind === 'log') item.log = state;
      if (state === 'same' || (state === 'changed' && changed !== 'update')) continue;
      const seen = (await documents.find(d.kind, item.machineId!))?.revision ?? 0;
      const value = documents.accept(d.kind, d.value);
      await documents.write(d.kind, item.machineId!, seen, value, { note: 'imported' });
    }
  };

  /** Marks that come with a photo, as one more revision where it has some already and changes are taken. */
  const addMarks = async (photoId: string, given: unknown, changed: WhenChanged) => {
    if (given === undefined) return;
    const kept = await documents.find('marks', photoId);
    const marks = documents.accept('marks', given, 'marks');
    const isMarked = kept !== null && kept.revision > 0;
    if (isMarked && (changed !== 'update' || !diffRecords(kept.value, marks).length)) return;
    await documents.write('marks', photoId, kept?.revision ?? 0, marks, { note: 'imported' });
  };

  /** Figures of a machine that was taken over as a new one, off photos that got new names with it. */
  const renamePhotos = async (machineId: string, photos: ReadonlyMap<string, string>) => {
    const { value, revision } = await documents.read('record', machineId);
    const next = withPhotos(value, photos);
    if (diffRecords(value, next).length === 0) return;
    await store.update(machineId, revision, next, { note: 'imported' });
  };

  /** Photos and papers of a candidate that are not here yet; one that cannot be taken is named and left out. */
  const addAttachments = async (candidate: Candidate, item: ImportItem, changed: WhenChanged) => {
    const asNew = item.action === 'changed' && changed === 'new';
    const renamed = new Map<string, string>();
    item.photos = 0;
    for (const photo of candidate.attachments ?? []) {
      const { id, file, path, name, caption, takenAt, focalPx } = photo;
      const known = await attachments.knows(id);
      try {
        if (known && !asNew) {
          if (await attachments.isOf(item.machineId!, id)) await addMarks(id, photo.marks, changed);
          continue;
        }
        const added = await attachments.add(
          item.machineId!,
          await photo.read(),
          { name, path },
          {
            takenAt,
            focalPx,
            facts: { caption, exported: true, looked: true },
            ...(known ? {} : { id }),
          },
        );
        item.photos++;
        if (added.id !== id) renamed.set(id, added.id);
        await addMarks(added.id, photo.marks, changed);
      } catch (cause) {
        item.reasons.push({ path: file, message: (cause as Error).message });
      }
    }
    await renamePhotos(item.machineId!, renamed);
  };

  /** Runs of a candidate that are not here yet; one that cannot be taken is named and left out. */
  const addRuns = async (candidate: Candidate, item: ImportItem, asNew: boolean) => {
    item.runs = 0;
    for (const run of candidate.runs ?? []) {
      try {
        const { made } = await runs(item.machineId!, await run.read(), run.log, asNew);
        if (made) item.runs++;
      } catch (cause) {
        item.reasons.push({ path: run.label, message: (cause as Error).message });
      }
    }
  };

  /** Editions of a candidate that are not here yet, from the first on; one that cannot be taken is named and left out. */
  const addEditions = async (candidate: Candidate, item: ImportItem) => {
    item.editions = 0;
    for (const { label, said, files, ...edition } of candidate.editions ?? []) {
      try {
        const given = { ...edition, source: await said() };
        if (await editions.take(item.machineId!, given, await files())) item.editions++;
      } catch (cause) {
        item.reasons.push({ path: label, message: (cause as Error).message });
      }
    }
  };

  /**
   * The variant and unit that a new machine joins: those it had in the library it comes from, as long as what this library
   * knows of them has the same cooling; else new ones.
   */
  const placeFor = async (candidate: Candidate, transaction: Transaction) => {
    const own = { variantId: randomUUID(), unitId: randomUUID() };
    const { place } = candidate;
    if (!place) return own;
    const sibling = await Machine.findOne({ where: { variantId: place.variantId }, transaction });
    if (sibling) {
      const cooling = (record: CaseRecord) => splitCase(record).cooling;
      const there = cooling(await recordOf(sibling, transaction));
      if (diffRecords(there, cooling(candidate.record as CaseRecord)).length) return own;
      if (await variantIsFull(db, place.variantId, transaction)) return own;
    }
    const unit = await Unit.findByPk(place.unitId, { transaction });
    const unitId = unit && unit.variantId !== place.variantId ? own.unitId : place.unitId;
    return { variantId: place.variantId, unitId };
  };

  const addNew = async (candidate: Candidate): Promise<string> => {
    const record = documents.accept('record', candidate.record, 'record');
    const work = async (transaction: Transaction): Promise<string> => {
      const { variantId, unitId } = await placeFor(candidate, transaction);
      // a second state of a unit finds its variant and unit already there; what has no place of its own finds none
      const { place: had } = candidate;
      if (!had || !(await Variant.findByPk(variantId, { transaction }))) {
        await addVariant(variantId, transaction);
      }
      if (!had || !(await Unit.findByPk(unitId, { transaction }))) {
        const facts = documents.accept('unit', candidate.place?.facts ?? {});
        await addUnit(db, documents, { id: unitId, variantId }, facts, transaction);
      }
      const place = {
        variantId,
        unitId,
        stateName: candidate.place?.stateName ?? candidate.stateName ?? 'as found',
        ...(candidate.id ? { id: candidate.id } : {}),
      };
      const { id } = await addMachine(db, documents, record, place, transaction, {
        note: 'imported',
      });
      const tags = [...new Set((candidate.tags ?? []).map((t) => t.trim().toLowerCase()))];
      if (!tags.some(Boolean)) return id;
      await MachineTag.bulkCreate(
        tags.filter(Boolean).map((tag) => ({ machineId: id, tag })),
        { ignoreDuplicates: true, transaction },
      );
      return id;
    };
    return db.write(work, { together: candidate.place === undefined });
  };

  /** One machine with all that comes with it; what cannot be taken is named, and nothing of the others hangs on it. */
  const takeOne = async (candidate: Candidate, changed: WhenChanged): Promise<ImportItem> => {
    const { item, row } = await plan(candidate);
    const asNew = item.action === 'changed' && changed === 'new';
    try {
      if (item.action === 'new') item.machineId = await addNew(candidate);
      if (item.action === 'changed' && changed === 'update') await change(candidate, item, row!);
      if (asNew) {
        const { id: _, place: __, attachments: ___, ...loose } = candidate;
        item.machineId = await addNew(loose);
      }
    } catch (cause) {
      // somebody else wrote meanwhile, or a name or place that cannot be: this one is left, the others go on
      return { ...item, action: 'refused', reasons: [reasonOf(cause)] };
    }
    const left = item.action === 'changed' && changed === 'skip';
    if (!item.machineId || left) return item;
    try {
      await addDocuments(candidate, item, changed);
    } catch (cause) {
      item.reasons.push(reasonOf(cause));
    }
    await addAttachments(candidate, item, changed);
    await addRuns(candidate, item, asNew);
    await addEditions(candidate, item);
    return item;
  };

  /** A machine that is here, as one more revision. */
  const change = async (candidate: Candidate, item: ImportItem, row: MachineRow) => {
    const { stateName } = candidate;
    const renamed = stateName !== undefined && stateName !== row.stateName;
    let { revision } = row;
    if (item.changed > (renamed ? 1 : 0)) {
      const note = { note: 'imported' };
      ({ revision } = await store.update(row.id, revision, candidate.record, note));
    }
    if (renamed) await store.rename(row.id, revision, stateName, { note: 'imported' });
  };

  return {
    /** What would happen, one after the other; nothing is written. */
    async *preview(candidates: readonly LazyCandidate[]): AsyncGenerator<ImportItem> {
      for (const candidate of candidates) {
        // one that is refused at once waits for nothing, and others ask something meanwhile
        await nextTurn();
        yield (await plan(await candidate())).item;
      }
    },

    /**
     * Writes what is new, and what is changed as one more revision or as a machine of its own; each machine is kept whole or not at
     * all. Refused ones are left out. Each is planned when its turn comes, since the one before may have changed its variant; only
     * records of different names that bring nothing with them are taken some at once. Whoever stops asking stops the import.
     */
    async *apply(
      candidates: readonly LazyCandidate[],
      changed: WhenChanged,
    ): AsyncGenerator<ImportItem> {
      yield* takeInTurn(candidates, (candidate) => takeOne(candidate, changed));
    },
  };
}
