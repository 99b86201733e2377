import { diffRecords, type Difference } from '@zugluft/core/family/diffRecords';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/openDatabase';
import type { MachineRow } from '../database/models';
import { onlyOneNamed } from '../machines/machineList';
import { recordOf, writeFirst } from '../machines/machineRows';
import type { MachineStore } from '../machines/machineStore';
import type { Candidate } from './readImport';

/** What an import does with one thing in the file. */
export interface PlannedItem {
  label: string;
  name: string;
  action: 'new' | 'changed' | 'same' | 'refused';
  /** Why it is refused. */
  reasons: { path: string; message: string }[];
  /** The machine it changes or equals. */
  machineId: string | null;
  changed: number;
  first: Difference[];
}

interface Planned {
  item: PlannedItem;
  candidate: Candidate;
  row: MachineRow | null;
}

const FIRST = 4;
const MOST_REASONS = 5;

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
  labDefaults: () => Promise<LabDefaults>,
) {
  const { Machine, MachineTag, Variant, Unit } = db.models;

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

  const plan = async (candidates: readonly Candidate[]): Promise<Planned[]> => {
    const out: Planned[] = [];
    for (const candidate of candidates) {
      const { label, refused } = candidate;
      const item: PlannedItem = {
        label,
        name: '',
        action: 'refused',
        reasons: [],
        machineId: null,
        changed: 0,
        first: [],
      };
      if (refused !== undefined) {
        item.reasons = [{ path: '', message: refused }];
        out.push({ item, candidate, row: null });
        continue;
      }
      const { record, issues, keepable } = parseRecord(candidate.record);
      item.name = nameOf(candidate.record);
      if (!record || !keepable) {
        item.reasons = issues
          .filter((i) => i.kind === 'impossible')
          .slice(0, MOST_REASONS)
          .map(({ path, message }) => ({ path, message }));
        out.push({ item, candidate, row: null });
        continue;
      }
      const row = await match(candidate, record);
      if (!row) item.action = 'new';
      else {
        const changes = diffRecords(await recordOf(db, row), record);
        item.machineId = row.id;
        item.action = changes.length ? 'changed' : 'same';
        item.changed = changes.length;
        item.first = changes.slice(0, FIRST);
      }
      out.push({ item, candidate, row });
    }
    return out;
  };

  const addNew = async (candidate: Candidate): Promise<string> => {
    const lab = await labDefaults();
    return db.write(async (transaction) => {
      const variantId = candidate.place?.variantId ?? randomUUID();
      const unitId = candidate.place?.unitId ?? randomUUID();
      // a second state of a unit finds its unit already there
      if (!(await Variant.findByPk(variantId, { transaction }))) {
        await Variant.create({ id: variantId, copiedFrom: null }, { transaction });
      }
      const unit = await Unit.findByPk(unitId, { transaction });
      if (!unit) {
        const facts = JSON.stringify(candidate.place?.facts ?? {});
        await Unit.create({ id: unitId, variantId, revision: 1, facts }, { transaction });
      }
      const place = {
        variantId: unit?.variantId ?? variantId,
        unitId,
        stateName: candidate.place?.stateName ?? 'as found',
        ...(candidate.id ? { id: candidate.id } : {}),
      };
      const row = await writeFirst(db, candidate.record, place, lab, transaction);
      const tags = [...new Set((candidate.tags ?? []).map((t) => t.trim().toLowerCase()))];
      await MachineTag.bulkCreate(
        tags.filter(Boolean).map((tag) => ({ machineId: row.id, tag })),
        { ignoreDuplicates: true, transaction },
      );
      return row.id;
    });
  };

  return {
    /** What would happen; nothing is written. */
    async preview(candidates: readonly Candidate[]): Promise<PlannedItem[]> {
      return (await plan(candidates)).map((p) => p.item);
    },

    /**
     * Writes what is new, and what is changed as one more revision or as a machine of its own; each machine is one
     * transaction. Refused ones are left out.
     */
    async apply(
      candidates: readonly Candidate[],
      changed: 'update' | 'new' | 'skip',
    ): Promise<PlannedItem[]> {
      const done: PlannedItem[] = [];
      for (const { item, candidate, row } of await plan(candidates)) {
        if (item.action === 'new') item.machineId = await addNew(candidate);
        if (item.action === 'changed' && changed === 'update') {
          await store.update(row!.id, row!.revision, candidate.record);
        }
        if (item.action === 'changed' && changed === 'new') {
          const { id: _, place: __, ...loose } = candidate;
          item.machineId = await addNew(loose);
        }
        done.push(item);
      }
      return done;
    },
  };
}
