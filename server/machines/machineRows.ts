import { randomUUID } from 'node:crypto';
import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import type { Machine, Unit } from '@zugluft/core/library/answers';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { Transaction } from 'sequelize';
import type { MachineRow, UnitRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import type { DocumentStore } from '../documents/documentStore';
import type { KeptDocument } from '../documents/shelf';
import { Problem } from '../security/problem';
import { describeRecord } from './describeRecord';

export function found<T>(row: T | null, what = 'machine'): T {
  if (!row) throw new Problem(404, 'Not found', `there is no such ${what}`);
  return row;
}

export function toUnit(row: UnitRow): Unit {
  return { id: row.id, revision: row.revision, facts: JSON.parse(row.facts) as UnitFacts };
}

/** A machine with its record and unit, as it is answered. */
export async function machineAnswer(
  db: Database,
  kept: KeptDocument<CaseRecord>,
  transaction?: Transaction,
): Promise<Machine> {
  const within = transaction ? { transaction } : {};
  const row = found(await db.models.Machine.findByPk(kept.id, within));
  const unit = found(await db.models.Unit.findByPk(row.unitId, within), 'unit');
  return {
    id: row.id,
    revision: kept.revision,
    record: kept.value,
    complete: row.complete,
    variantId: row.variantId,
    unit: toUnit(unit),
    stateName: row.stateName,
    createdAt: row.createdAt.toISOString(),
    updatedAt: (kept.updatedAt ?? row.updatedAt).toISOString(),
    putAsideAt: row.putAsideAt?.toISOString() ?? null,
  };
}

/** Where a new machine stands. */
export interface MachinePlace {
  variantId: string;
  unitId: string;
  stateName: string;
  id?: string;
}

/** Writes a new machine with its first revision. */
export async function addMachine(
  db: Database,
  documents: DocumentStore,
  record: CaseRecord,
  { id = randomUUID(), ...place }: MachinePlace,
  transaction: Transaction,
  note = '',
): Promise<KeptDocument<CaseRecord>> {
  const { complete } = parseRecord(record);
  await db.models.Machine.create(
    { id, revision: 1, putAsideAt: null, ...place, ...describeRecord(record, complete) },
    { transaction },
  );
  return documents.create('record', id, record, transaction, { name: place.stateName, note });
}

/** Writes a new unit of a variant. */
export async function addUnit(
  db: Database,
  documents: DocumentStore,
  { id = randomUUID(), variantId }: { id?: string; variantId: string },
  facts: UnitFacts,
  transaction: Transaction,
): Promise<string> {
  await db.models.Unit.create(
    { id, variantId, revision: 1, facts: JSON.stringify(facts) },
    { transaction },
  );
  await documents.create('unit', id, facts, transaction);
  return id;
}

/** The rows by which a machine is listed, kept up with its record. */
export async function listMachine(
  db: Database,
  now: KeptDocument<CaseRecord>,
  before: KeptDocument<CaseRecord> | null,
  transaction: Transaction,
): Promise<void> {
  if (!before) {
    db.touch(transaction, now.id, 'words');
    return;
  }
  const row: MachineRow = found(await db.models.Machine.findByPk(now.id, { transaction }));
  const words = row.searchText;
  const described =
    now.value === before.value ? {} : describeRecord(now.value, parseRecord(now.value).complete);
  await row.update(
    {
      ...described,
      revision: now.revision,
      stateName: now.name ?? row.stateName,
      putAsideAt: now.putAsideAt,
    },
    { transaction },
  );
  db.touch(transaction, now.id, row.searchText === words ? 'figures' : 'words');
}
