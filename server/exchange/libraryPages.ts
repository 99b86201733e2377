import type { KindName } from '@zugluft/core/documents/kinds';
import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { Op, QueryTypes } from 'sequelize';
import type { MachineRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import type { DocumentStore } from '../documents/documentStore';
import { Problem } from '../security/problem';

/** Machines whose rows, documents and what hangs on them are read together: a query for each would take most of an export. */
const AT_ONCE = 100;

const NEWEST = `SELECT d.kind, d.id, r.value FROM documents d
  JOIN document_revisions r ON r.kind = d.kind AND r.id = d.id AND r.revision = d.revision
  WHERE d.kind IN (:kinds) AND d.id IN (:ids)`;

/** A machine of the library with what is kept of it. */
export interface LibraryMachine {
  row: MachineRow;
  record: CaseRecord;
  facts: UnitFacts;
  tags: string[];
  /** Text of each document that was asked for and written. */
  documents: ReadonlyMap<KindName, string>;
  hasPhotos: boolean;
  hasRuns: boolean;
  hasEditions: boolean;
}

/**
 * Every machine that is not put aside, in order of its id; records are made into values one at a time, and others are let in between.
 *
 * @param kinds of documents that are read along
 * @param left told of one whose record is not as it should be: it keeps nothing else from going out
 */
export async function* libraryMachines(
  db: Database,
  documents: DocumentStore,
  kinds: readonly KindName[] = [],
  left: (row: MachineRow, why: string) => void = () => undefined,
): AsyncGenerator<LibraryMachine> {
  const { Machine, Unit, MachineTag, Attachment, Run, Edition } = db.models;
  for (let after = ''; ;) {
    const rows = await Machine.findAll({
      where: { putAsideAt: null, id: { [Op.gt]: after } },
      order: [['id', 'ASC']],
      limit: AT_ONCE,
    });
    if (!rows.length) return;
    const ids = rows.map((row) => row.id);
    const of = { where: { machineId: ids }, attributes: ['machineId'], raw: true as const };
    const texts = await db.sequelize.query<{ kind: KindName; id: string; value: string }>(NEWEST, {
      type: QueryTypes.SELECT,
      replacements: { kinds: ['record', ...kinds], ids },
    });
    const units = await Unit.findAll({ where: { id: rows.map((row) => row.unitId) }, raw: true });
    const tags = await MachineTag.findAll({ where: { machineId: ids }, raw: true });
    const withPhotos = await Attachment.findAll({ ...of, group: ['machineId'] });
    const withRuns = await Run.findAll({ ...of, group: ['machineId'] });
    const withEditions = await Edition.findAll({ ...of, group: ['machineId'] });

    const byId = new Map<string, Map<KindName, string>>(ids.map((id) => [id, new Map()]));
    for (const { kind, id, value } of texts) byId.get(id)!.set(kind, value);
    const factsOf = new Map(units.map((unit) => [unit.id, unit.facts]));
    const tagsOf = new Map<string, string[]>();
    for (const { machineId, tag } of tags) {
      tagsOf.set(machineId, [...(tagsOf.get(machineId) ?? []), tag]);
    }
    const has = (of: readonly { machineId: string }[]) => new Set(of.map((x) => x.machineId));
    const [photos, runs, editions] = [has(withPhotos), has(withRuns), has(withEditions)];
    for (const row of rows) {
      const own = byId.get(row.id)!;
      let record: CaseRecord;
      try {
        record = documents.readValue('record', own.get('record') ?? 'null');
      } catch (cause) {
        if (!(cause instanceof Problem)) throw cause;
        left(row, cause.message);
        continue;
      }
      yield {
        row,
        record,
        facts: JSON.parse(factsOf.get(row.unitId) ?? '{}') as UnitFacts,
        tags: (tagsOf.get(row.id) ?? []).sort(),
        documents: own,
        hasPhotos: photos.has(row.id),
        hasRuns: runs.has(row.id),
        hasEditions: editions.has(row.id),
      };
      await nextTurn();
    }
    after = ids[ids.length - 1]!;
  }
}
