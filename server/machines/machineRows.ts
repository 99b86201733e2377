import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { Transaction } from 'sequelize';
import type { MachineRow, UnitRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import { Problem } from '../security/problem';

export interface Unit {
  id: string;
  revision: number;
  facts: UnitFacts;
}

/** A machine's file: one state of one unit of a variant, as the record that joins them. */
export interface Machine {
  id: string;
  revision: number;
  record: CaseRecord;
  complete: boolean;
  variantId: string;
  unit: Unit;
  stateName: string;
  createdAt: string;
  updatedAt: string;
  putAsideAt: string | null;
}

export function found<T>(row: T | null, what = 'machine'): T {
  if (!row) throw new Problem(404, 'Not found', `there is no such ${what}`);
  return row;
}

export function toUnit(row: UnitRow): Unit {
  return { id: row.id, revision: row.revision, facts: JSON.parse(row.facts) as UnitFacts };
}

export function toMachine(row: MachineRow, unit: UnitRow): Machine {
  return {
    id: row.id,
    revision: row.revision,
    record: JSON.parse(row.record) as CaseRecord,
    complete: row.complete,
    variantId: row.variantId,
    unit: toUnit(unit),
    stateName: row.stateName,
    createdAt: row.createdAt.toISOString(),
    updatedAt: row.updatedAt.toISOString(),
    putAsideAt: row.putAsideAt?.toISOString() ?? null,
  };
}

/** A machine with its unit. */
export async function withUnit(
  db: Database,
  row: MachineRow,
  transaction?: Transaction,
): Promise<Machine> {
  const unit = await db.models.Unit.findByPk(row.unitId, transaction ? { transaction } : {});
  return toMachine(row, found(unit, 'unit'));
}
