import { randomUUID } from 'node:crypto';
import { unzipSync } from 'fflate';
import type { Transaction } from 'sequelize';
import { readEditionSource } from '@zugluft/core/report/editionSource';
import { createFileFolder } from '../attachments/fileFolder';
import { sha256Of } from '../attachments/sha256Of';
import type { EditionRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import { Problem } from '../security/problem';
import { MAX_EDITIONS } from './editionBounds';

/** Files of one edition, and what they unpack to together: some ten times what the program writes. */
const MAX_FILES = 60;
const MAX_UNPACKED = 60 * 1024 * 1024;
/** What an edition is written as, by a name that means nothing to a folder. */
const FILE_NAME = /^[\p{L}\p{N}][\p{L}\p{N}_-]{0,150}\.(?:html|pdf|md|csv|json|svg|png)$/u;

/** An edition as it goes out with its library. */
export interface TravellingEdition {
  number: number;
  createdAt: string;
  recordRevision: number;
  /** What it said. */
  source: unknown;
}

export type EditionTravel = ReturnType<typeof createEditionTravel>;

/**
 * Takes editions out of a library and into one, byte for byte.
 *
 * @param db an open library
 */
export function createEditionTravel(db: Database) {
  const { Edition } = db.models;
  const folder = createFileFolder(db.folder);

  const newest = async (machineId: string, transaction?: Transaction): Promise<number> =>
    (await Edition.max<number | null, EditionRow>('number', {
      where: { machineId },
      ...(transaction ? { transaction } : {}),
    })) ?? 0;

  return {
    /** Number of the newest edition of a machine, 0 where it has none. */
    newest: (machineId: string): Promise<number> => newest(machineId),

    /** Editions of a machine from the first on, each with its files as a zip; null where these are not here. */
    async *of(machineId: string): AsyncGenerator<TravellingEdition & { zip: Buffer | null }> {
      const rows = await Edition.findAll({ where: { machineId }, order: [['number', 'ASC']] });
      for (const row of rows) {
        yield {
          number: row.number,
          createdAt: row.createdAt.toISOString(),
          recordRevision: row.recordRevision,
          source: JSON.parse(row.source),
          zip: await folder.read(row.sha256).catch(() => null),
        };
      }
    },

    /**
     * Takes an edition from outside, marked as brought in.
     *
     * @returns whether it was not here yet
     * @throws Problem 409 where another one has its number, or those before it are not here; 422 where it is none
     */
    async take(machineId: string, given: TravellingEdition, zip: Buffer): Promise<boolean> {
      const { number, createdAt, recordRevision } = given;
      const read = readEditionSource(given.source);
      if ('problem' in read) throw new Problem(422, 'No edition', read.problem);
      const files = filesOf(zip);
      const sha256 = await sha256Of(zip);
      /** Whether it has to be taken. */
      const isNew = async (transaction?: Transaction): Promise<boolean> => {
        const there = await Edition.findOne({
          where: { machineId, number },
          ...(transaction ? { transaction } : {}),
        });
        if (there?.sha256 === sha256) return false;
        if (there) throw new Problem(409, 'Another one', `edition ${number} is here already`);
        if ((await newest(machineId, transaction)) !== number - 1 || number > MAX_EDITIONS) {
          throw new Problem(409, 'Others are missing', `edition ${number - 1} is not here`);
        }
        return true;
      };
      // nothing of one that is refused is left in the folder
      if (!(await isNew())) return false;
      await folder.keep(zip);
      return db.write(async (transaction) => {
        if (!(await isNew(transaction))) return false;
        await Edition.create(
          {
            id: randomUUID(),
            machineId,
            number,
            recordRevision,
            source: JSON.stringify(read.source),
            files: JSON.stringify(files),
            sha256,
            bytes: zip.length,
            createdAt: new Date(createdAt),
          },
          { transaction },
        );
        return true;
      });
    },
  };
}

/** Names and sizes of what an edition was written as; nothing is unpacked that could be more than is taken. */
function filesOf(zip: Buffer): { name: string; bytes: number }[] {
  const no = (why: string) => new Problem(422, 'No edition', why);
  let count = 0;
  let sum = 0;
  let unpacked: Record<string, Uint8Array>;
  try {
    unpacked = unzipSync(zip, {
      filter: ({ name, originalSize }) => {
        sum += originalSize;
        if (++count > MAX_FILES || sum > MAX_UNPACKED) throw no('it holds too much');
        if (!FILE_NAME.test(name)) throw no(`${name.slice(0, 80)} is no file of an edition`);
        return true;
      },
    });
  } catch (cause) {
    throw cause instanceof Problem ? cause : no('its files cannot be unpacked');
  }
  if (count === 0) throw no('it holds no file');
  return Object.entries(unpacked).map(([name, bytes]) => ({ name, bytes: bytes.length }));
}
