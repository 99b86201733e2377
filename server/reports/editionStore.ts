import { randomUUID } from 'node:crypto';
import { unzipSync, zipSync } from 'fflate';
import type { Page } from '@zugluft/core/library/answers';
import type { EditionAnswer, EditionSummary } from '@zugluft/core/library/editionAnswers';
import { CARD_SIZES } from '@zugluft/core/report/cardChart';
import { editionChanges, nothingNew, type EditionSource } from '@zugluft/core/report/edition';
import { PAPERS } from '@zugluft/publish/formats';
import { createFileFolder } from '../attachments/fileFolder';
import type { EditionRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import { found } from '../machines/machineRows';
import { Problem } from '../security/problem';
import { MAX_EDITIONS } from './editionBounds';
import type { Asked, GatherReport } from './gatherReport';
import type { MakeReport, ReportForm } from './makeReport';

const PAGE_SIZE = 20;

export type EditionStore = ReturnType<typeof createEditionStore>;

/**
 * Reports as they were published: each is written once in every form, numbered, and never changed.
 *
 * @param db an open library
 * @param gather what a report is made of
 * @param make writes it
 */
export function createEditionStore(db: Database, gather: GatherReport, make: MakeReport) {
  const { Edition, Machine } = db.models;
  const folder = createFileFolder(db.folder);
  const sourceOf = (row: EditionRow) => JSON.parse(row.source) as EditionSource;
  const newestOf = (machineId: string) =>
    Edition.findOne({ where: { machineId }, order: [['number', 'DESC']] });
  const one = async (machineId: string, number: number): Promise<EditionRow> => {
    const row = await Edition.findOne({ where: { machineId, number } });
    if (!row) throw new Problem(404, 'Not found', 'there is no such edition');
    return row;
  };

  return {
    async list(machineId: string, page: number): Promise<Page<EditionSummary>> {
      found(await Machine.findByPk(machineId, { attributes: ['id'] }));
      const { rows, count } = await Edition.findAndCountAll({
        where: { machineId },
        order: [['number', 'DESC']],
        limit: PAGE_SIZE,
        offset: (page - 1) * PAGE_SIZE,
      });
      return { items: rows.map(summaryOf), total: count, page, pageSize: PAGE_SIZE };
    },

    /** An edition with what is new in it since the one before. */
    async read(machineId: string, number: number): Promise<EditionAnswer> {
      const row = await one(machineId, number);
      const before = number > 1 ? await one(machineId, number - 1) : null;
      return {
        ...summaryOf(row),
        changes: before && editionChanges(sourceOf(before), sourceOf(row)),
      };
    },

    /**
     * Publishes what stands now as the next edition.
     *
     * @throws Problem 409 where nothing is new, or another one was published meanwhile
     */
    async publish(machineId: string, asked: Asked): Promise<EditionAnswer> {
      const { job, name, revision } = await gather(machineId, asked);
      const newest = await newestOf(machineId);
      const number = (newest?.number ?? 0) + 1;
      if (number > MAX_EDITIONS) {
        throw new Problem(409, 'Too many', `a machine has at most ${MAX_EDITIONS} editions`);
      }
      const { files, source } = await make({
        ...job,
        forms: formsOf(`${name}-edition-${number}`, job.caps.length > 0),
        trace: { ...job.trace, edition: String(number) },
      });
      const changes = newest && editionChanges(sourceOf(newest), source);
      if (changes && nothingNew(changes)) {
        throw new Problem(409, 'Nothing new', `nothing has changed since edition ${newest.number}`);
      }
      const zip = zipSync(Object.fromEntries(files.map((f) => [f.name, new Uint8Array(f.bytes)])));
      const sha256 = await folder.keep(zip);
      const row = await db.write(async (transaction) => {
        const last = await Edition.max<number | null, EditionRow>('number', {
          where: { machineId },
          transaction,
        });
        if ((last ?? 0) !== number - 1) {
          throw new Problem(409, 'Published meanwhile', 'another edition was published meanwhile');
        }
        return Edition.create(
          {
            id: randomUUID(),
            machineId,
            number,
            recordRevision: revision,
            source: JSON.stringify(source),
            files: JSON.stringify(files.map((f) => ({ name: f.name, bytes: f.bytes.length }))),
            sha256,
            bytes: zip.length,
          },
          { transaction },
        );
      });
      return { ...summaryOf(row), changes };
    },

    /** A file of an edition as it was published, or all of them as a zip. */
    async file(machineId: string, number: number, name: string | null): Promise<Buffer> {
      const zip = await folder.read((await one(machineId, number)).sha256);
      if (name === null) return zip;
      const bytes = unzipSync(zip, { filter: (f) => f.name === name })[name];
      if (!bytes) throw new Problem(404, 'Not found', 'the edition has no such file');
      return Buffer.from(bytes);
    },
  };
}

function summaryOf(row: EditionRow): EditionSummary {
  const { headline, cap, units, imported } = JSON.parse(row.source) as EditionSource;
  return {
    number: row.number,
    createdAt: row.createdAt.toISOString(),
    recordRevision: row.recordRevision,
    headline,
    cap,
    units,
    imported: imported === true,
    files: JSON.parse(row.files) as EditionSummary['files'],
  };
}

/** Everything that a report can be written as. */
function formsOf(base: string, hasChart: boolean): ReportForm[] {
  return [
    { as: 'html', base: `${base}.html` },
    ...PAPERS.map((paper): ReportForm => ({
      as: 'pdf',
      paper,
      base: `${base}-${paper.toLowerCase()}.pdf`,
    })),
    { as: 'md', base: `${base}.md` },
    { as: 'csv', base: `${base}.csv` },
    { as: 'json', base: `${base}.json` },
    ...(hasChart ? [{ as: 'svg', base: `${base}-chart.svg` } as const] : []),
    ...CARD_SIZES.flatMap((size): ReportForm[] => [
      { as: 'card-svg', size, base: `${base}-card-${size}.svg` },
      { as: 'card-png', size, base: `${base}-card-${size}.png` },
    ]),
  ];
}
