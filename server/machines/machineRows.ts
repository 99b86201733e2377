import { randomUUID } from 'node:crypto';
import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import type { Machine, Unit } from '@zugluft/core/library/answers';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import type { Transaction } from 'sequelize';
import type { MachineRow, UnitRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import { Problem } from '../security/problem';
import { acceptRecord, describeRecord } from './describeRecord';

export function found<T>(row: T | null, what = 'machine'): T {
  if (!row) throw new Problem(404, 'Not found', `there is no such ${what}`);
  return row;
}

export function toUnit(row: UnitRow): Unit {
  return { id: row.id, revision: row.revision, facts: JSON.parse(row.facts) as UnitFacts };
}

function toMachine(row: MachineRow, record: CaseRecord, unit: UnitRow): Machine {
  return {
    id: row.id,
    revision: row.revision,
    record,
    complete: row.complete,
    variantId: row.variantId,
    unit: toUnit(unit),
    stateName: row.stateName,
    createdAt: row.createdAt.toISOString(),
    updatedAt: row.updatedAt.toISOString(),
    putAsideAt: row.putAsideAt?.toISOString() ?? null,
  };
}

/** The record of a machine: that of its newest revision. */
export async function recordOf(
  db: Database,
  row: MachineRow,
  transaction?: Transaction,
): Promise<CaseRecord> {
  const revision = await db.models.Revision.findOne({
    where: { machineId: row.id, revision: row.revision },
    ...(transaction ? { transaction } : {}),
  });
  return JSON.parse(found(revision, 'revision').record) as CaseRecord;
}

/** A machine with its record and unit. */
export async function withUnit(
  db: Database,
  row: MachineRow,
  transaction?: Transaction,
): Promise<Machine> {
  const unit = await db.models.Unit.findByPk(row.unitId, transaction ? { transaction } : {});
  return toMachine(row, await recordOf(db, row, transaction), found(unit, 'unit'));
}

/** Writes a new machine with its first revision. */
export async function writeFirst(
  db: Database,
  input: unknown,
  place: { variantId: string; unitId: string; stateName: string; id?: string },
  lab: LabDefaults,
  transaction: Transaction,
): Promise<MachineRow> {
  const { record, complete } = acceptRecord(input);
  const row = await db.models.Machine.create(
    {
      id: randomUUID(),
      revision: 1,
      putAsideAt: null,
      ...place,
      ...describeRecord(record, complete, lab),
    },
    { transaction },
  );
  await db.models.Revision.create(
    { machineId: row.id, revision: 1, record: JSON.stringify(record) },
    { transaction },
  );
  return row;
}

/** Writes one more revision of a machine. */
export async function writeNext(
  db: Database,
  row: MachineRow,
  input: unknown,
  lab: LabDefaults,
  transaction: Transaction,
): Promise<CaseRecord> {
  const { record, complete } = acceptRecord(input);
  const revision = row.revision + 1;
  await row.update({ ...describeRecord(record, complete, lab), revision }, { transaction });
  await db.models.Revision.create(
    { machineId: row.id, revision, record: JSON.stringify(record) },
    { transaction },
  );
  return record;
}
