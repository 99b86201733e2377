import { randomUUID } from 'node:crypto';
import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import type { Machine, Unit } from '@zugluft/core/library/answers';
import { checkRecord } from '@zugluft/core/record/checkRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { Transaction } from 'sequelize';
import type { UnitRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import { firstPrepared, insertPrepared, runPrepared } from '../database/prepared';
import { sqlTime } from '../database/sqlTime';
import type { DocumentStore, WriteAbout } from '../documents/documentStore';
import type { KeptDocument } from '../documents/shelf';
import { Problem } from '../security/problem';
import { describeRecord, searchTextOf } from './describeRecord';

export function found<T>(row: T | null, what = 'machine'): T {
  if (!row) throw new Problem(404, 'Not found', `there is no such ${what}`);
  return row;
}

export function toUnit(row: UnitRow): Unit {
  return { id: row.id, revision: row.revision, facts: JSON.parse(row.facts) as UnitFacts };
}

/** A machine's row with its unit. */
const ANSWER = `SELECT m.complete, m.variantId, m.stateName, m.createdAt, m.updatedAt, m.putAsideAt,
  u.id AS unitId, u.revision AS unitRevision, u.facts FROM machines m JOIN units u ON u.id = m.unitId WHERE m.id = $id`;

interface AnswerRow {
  complete: number;
  variantId: string;
  stateName: string;
  createdAt: string;
  updatedAt: string;
  putAsideAt: string | null;
  unitId: string;
  unitRevision: number;
  facts: string;
}

/** A machine with its record and unit, as it is answered. */
export async function machineAnswer(
  db: Database,
  kept: KeptDocument<CaseRecord>,
  transaction?: Transaction,
): Promise<Machine> {
  const row = transaction
    ? await firstPrepared<AnswerRow>(transaction, ANSWER, { id: kept.id })
    : (await db.read<AnswerRow>(ANSWER, { id: kept.id }))[0];
  const { complete, variantId, stateName, createdAt, updatedAt, putAsideAt, ...unit } = found(
    row ?? null,
  );
  const iso = (at: Date | string) => new Date(at).toISOString();
  return {
    id: kept.id,
    revision: kept.revision,
    record: kept.value,
    complete: Boolean(complete),
    variantId,
    unit: {
      id: unit.unitId,
      revision: unit.unitRevision,
      facts: JSON.parse(unit.facts) as UnitFacts,
    },
    stateName,
    createdAt: iso(createdAt),
    updatedAt: iso(kept.updatedAt ?? updatedAt),
    putAsideAt: putAsideAt === null ? null : iso(putAsideAt),
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
  about: WriteAbout = {},
): Promise<KeptDocument<CaseRecord>> {
  const complete = checkRecord(record).length === 0;
  const at = sqlTime(new Date());
  const described = describeRecord(record, complete);
  await insertPrepared(transaction, 'machines', {
    id,
    revision: 1,
    putAsideAt: null,
    ...place,
    ...described,
    complete: Number(complete),
    chamber: Number(described.chamber),
    createdAt: at,
    updatedAt: at,
  });
  return documents.create('record', id, record, transaction, {
    name: place.stateName,
    ...about,
  });
}

/** Writes a new variant that is like no other. */
export async function addVariant(id: string, transaction: Transaction): Promise<void> {
  const createdAt = sqlTime(new Date());
  await insertPrepared(transaction, 'variants', { id, copiedFrom: null, createdAt });
}

/** Writes a new machine of a variant of its own, as the one unit there is of it was found. */
export async function addMachineAlone(
  db: Database,
  documents: DocumentStore,
  record: CaseRecord,
  id: string,
  transaction: Transaction,
  about: WriteAbout = {},
): Promise<KeptDocument<CaseRecord>> {
  const variantId = randomUUID();
  await addVariant(variantId, transaction);
  const unitId = await addUnit(db, documents, { variantId }, {}, transaction);
  const place = { variantId, unitId, stateName: 'as found', id };
  return addMachine(db, documents, record, place, transaction, about);
}

/** Writes a new unit of a variant. */
export async function addUnit(
  db: Database,
  documents: DocumentStore,
  { id = randomUUID(), variantId }: { id?: string; variantId: string },
  facts: UnitFacts,
  transaction: Transaction,
): Promise<string> {
  const at = sqlTime(new Date());
  await insertPrepared(transaction, 'units', {
    id,
    variantId,
    revision: 1,
    facts: JSON.stringify(facts),
    createdAt: at,
    updatedAt: at,
  });
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
  const described =
    now.value === before.value ? null : describeRecord(now.value, !checkRecord(now.value).length);
  const words = described !== null && described.searchText !== searchTextOf(before.value);
  db.touch(transaction, now.id, words ? 'words' : 'figures');
  const columns = {
    ...(described && {
      ...described,
      complete: Number(described.complete),
      chamber: Number(described.chamber),
    }),
    revision: now.revision,
    ...(now.name === null ? {} : { stateName: now.name }),
    putAsideAt: sqlTime(now.putAsideAt),
    updatedAt: sqlTime(now.updatedAt),
  };
  const set = Object.keys(columns).map((name) => `${name} = $${name}`);
  await runPrepared(transaction, `UPDATE machines SET ${set.join(', ')} WHERE id = $id`, {
    ...columns,
    id: now.id,
  });
}
