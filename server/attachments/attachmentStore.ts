import { createHash, randomUUID } from 'node:crypto';
import {
  attachmentFacts,
  MAX_ATTACHMENTS,
  type Attachment,
  type AttachmentFacts,
  type AttachmentType,
  type Cover,
} from '@zugluft/core/library/attachment';
import type { Page } from '@zugluft/core/library/answers';
import type { Transaction } from 'sequelize';
import type { AttachmentRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import type { DocumentStore, WriteAbout } from '../documents/documentStore';
import { found } from '../machines/machineRows';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';
import { createOneByOne } from '../derived/oneByOne';
import { createFileFolder } from './fileFolder';
import type { KeptMeasures } from '@zugluft/core/photo/measureKept';
import type { PhotoMarks } from '@zugluft/core/photo/photoMarks';
import type { Proposal } from '@zugluft/core/photo/proposals';
import type { Sought } from '@zugluft/core/photo/sought';
import { sha256Of } from './sha256Of';
import { burnCovers, cleanPhoto, thumbnail, typeByContent } from './imageWork';
import { doPictureJob, type DoPictureJob } from './pictureJobs';

const PAGE_SIZE = 100;
/** Longer side of a photo on a screen on which it is measured. */
const VIEW_PX = 2560;
/** Longer side of a photo in a guide. */
const READING_PX = 1280;

/** What is said of a photo or paper that comes from an export. */
interface Given {
  id?: string;
  takenAt?: string | null;
  focalPx?: number | null;
  facts?: Partial<AttachmentFacts>;
}

export type AttachmentStore = ReturnType<typeof createAttachmentStore>;

const coversOf = (row: AttachmentRow) => JSON.parse(row.covers) as Cover[];

/** @throws Problem 422 where it is a paper */
function photoOnly(row: Attachment): Attachment {
  if (row.type === 'application/pdf') {
    throw new Problem(422, 'No photo', 'only photos are measured, no papers');
  }
  return row;
}

export function toAttachment(row: AttachmentRow): Attachment {
  return {
    id: row.id,
    machineId: row.machineId,
    revision: row.revision,
    path: row.path,
    name: row.name,
    type: row.type as AttachmentType,
    sha256: row.sha256,
    bytes: row.bytes,
    widthPx: row.widthPx,
    heightPx: row.heightPx,
    takenAt: row.takenAt,
    focalPx: row.focalPx,
    caption: row.caption,
    covers: coversOf(row),
    exported: row.exported,
    looked: row.looked,
    createdAt: row.createdAt.toISOString(),
    putAsideAt: row.putAsideAt?.toISOString() ?? null,
  };
}

/**
 * Photos and papers of machines: bytes in a folder, the rest in the library. Bytes are on disk before their row is written,
 * so that no row points at nothing.
 *
 * @param db an open library
 * @param documents the store, for what people say of a photo
 * @param pictureWork works on full pixels; in this thread by default
 */
export function createAttachmentStore(
  db: Database,
  documents: DocumentStore,
  pictureWork: DoPictureJob = doPictureJob,
) {
  const { Attachment: Rows, Machine } = db.models;
  const folder = createFileFolder(db.folder);
  const bytesOf = async (sha256: string): Promise<Buffer> => {
    try {
      return await folder.read(sha256);
    } catch (cause) {
      if ((cause as { code?: string }).code !== 'ENOENT') throw cause;
      throw new Problem(404, 'Not here', 'its bytes are missing on the disk: restore a backup');
    }
  };
  // decoding takes much memory and all cores but one: one at a time
  const oneByOne = createOneByOne();
  // the thread holds the pixels of one photo, and takes its jobs in order anyway: here those that nobody waits for are left out
  const inThread = createOneByOne();
  const rowOf = async (machineId: string, id: string, transaction?: Transaction) =>
    found(
      await Rows.findOne({ where: { id, machineId }, ...(transaction ? { transaction } : {}) }),
      'photo or paper',
    );

  const smallOf = (sha256: string, covers: readonly Cover[], wanted?: AbortSignal) => {
    const boxes = createHash('sha256').update(JSON.stringify(covers)).digest('hex');
    return derived(
      `${sha256}-${boxes.slice(0, 16)}.webp`,
      async () => thumbnail(await bytesOf(sha256), covers),
      wanted,
    );
  };
  /** A picture made of a photo once, also where several ask for it at once. */
  const derived = async (key: string, make: () => Promise<Buffer>, wanted?: AbortSignal) =>
    (await folder.smallThere(key)) ?? oneByOne(() => folder.small(key, make), wanted);

  const adding = new Map<string, Promise<Attachment>>();
  const addOne = async (
    machineId: string,
    bytes: Uint8Array,
    about: { name: string; path: string },
    given: Given,
  ): Promise<Attachment> => {
    if (!bytes.length) throw new Problem(422, 'Empty', 'the file is empty');
    const type = typeByContent(bytes);
    if (!type) {
      throw new Problem(
        415,
        'No photo, no paper',
        'the file is no JPEG, PNG, WebP or PDF by its content, whatever it is called',
      );
    }
    const paper = type === 'application/pdf';
    const facts = parse(attachmentFacts, {
      caption: '',
      covers: [],
      // what a paper shows cannot be covered here, so that it stays in until somebody says otherwise
      exported: !paper,
      ...given.facts,
      ...about,
    });
    const clean = paper
      ? { bytes, widthPx: null, heightPx: null, takenAt: null, focalPx: null }
      : await oneByOne(() => cleanPhoto(bytes, type));
    const sha256 = await folder.keep(clean.bytes);
    if (!paper) await smallOf(sha256, facts.covers);
    const { covers, ...rest } = facts;
    return db.write(async (transaction) => {
      found(await Machine.findByPk(machineId, { transaction }));
      const there = await Rows.count({ where: { machineId, putAsideAt: null }, transaction });
      if (there >= MAX_ATTACHMENTS) {
        throw new Problem(
          409,
          'Full',
          `a machine holds at most ${MAX_ATTACHMENTS} photos and papers`,
        );
      }
      const row = await Rows.create(
        {
          id: given.id ?? randomUUID(),
          machineId,
          revision: 1,
          type,
          sha256,
          bytes: clean.bytes.length,
          widthPx: clean.widthPx,
          heightPx: clean.heightPx,
          takenAt: given.takenAt ?? clean.takenAt,
          focalPx: given.focalPx ?? clean.focalPx,
          covers: JSON.stringify(covers),
          putAsideAt: null,
          ...rest,
        },
        { transaction },
      );
      await documents.create('photo', row.id, facts, transaction);
      return toAttachment(row);
    });
  };

  return {
    tidy: () => folder.tidy(),

    async list(machineId: string, page: number, aside: boolean): Promise<Page<Attachment>> {
      found(await Machine.findByPk(machineId));
      const { rows, count } = await Rows.findAndCountAll({
        where: { machineId, ...(aside ? {} : { putAsideAt: null }) },
        order: [
          ['createdAt', 'ASC'],
          ['id', 'ASC'],
        ],
        limit: PAGE_SIZE,
        offset: (page - 1) * PAGE_SIZE,
      });
      return { items: rows.map(toAttachment), total: count, page, pageSize: PAGE_SIZE };
    },

    /**
     * Takes a photo or paper; the same one that is being taken already is the same, whoever else sends it at once.
     *
     * @param given id and facts where it comes from an export
     * @throws Problem 415 where the content is none of the kinds taken, 422 where it cannot be read, 409 where there are too many
     */
    async add(
      machineId: string,
      bytes: Uint8Array,
      about: { name: string; path: string },
      given: Given = {},
    ): Promise<Attachment> {
      const content = await sha256Of(bytes);
      const key = JSON.stringify([machineId, content, about, given]);
      const under = adding.get(key);
      if (under) return under;
      const added = addOne(machineId, bytes, about, given).finally(() => adding.delete(key));
      adding.set(key, added);
      return added;
    },

    /** A photo or paper of a machine, null where there is none of this id. */
    async find(machineId: string, id: string): Promise<Attachment | null> {
      const row = await Rows.findOne({ where: { id, machineId } });
      return row && toAttachment(row);
    },

    /** Whether a photo or paper of this id is there, also one put aside. */
    async knows(id: string): Promise<boolean> {
      return (await Rows.findByPk(id)) !== null;
    },

    /** Whether this photo is of this machine. */
    async isOf(machineId: string, id: string): Promise<boolean> {
      return (await Rows.findByPk(id))?.machineId === machineId;
    },

    /** Replaces what is known of a photo if it is still at the revision the writer saw. */
    async change(
      machineId: string,
      id: string,
      seen: number,
      input: unknown,
      about?: WriteAbout,
    ): Promise<Attachment> {
      await rowOf(machineId, id);
      await documents.write('photo', id, seen, documents.accept('photo', input), about);
      return toAttachment(await rowOf(machineId, id));
    },

    async setAside(
      machineId: string,
      id: string,
      seen: number,
      aside: boolean,
      about?: WriteAbout,
    ): Promise<Attachment> {
      await rowOf(machineId, id);
      await documents.setAside('photo', id, seen, aside, about);
      return toAttachment(await rowOf(machineId, id));
    },

    /** A photo as it is kept, for the lab's own eyes: its boxes can still be moved. */
    async content(machineId: string, id: string): Promise<{ row: Attachment; bytes: Buffer }> {
      const row = toAttachment(await rowOf(machineId, id));
      return { row, bytes: await bytesOf(row.sha256) };
    },

    /** A copy to be given away: boxes burned in. */
    async copy(
      machineId: string,
      id: string,
      wanted?: AbortSignal,
    ): Promise<{ row: Attachment; bytes: Buffer }> {
      const row = toAttachment(await rowOf(machineId, id));
      const bytes = await bytesOf(row.sha256);
      if (!row.covers.length) return { row, bytes };
      return { row, bytes: await oneByOne(() => burnCovers(bytes, row.type, row.covers), wanted) };
    },

    /** A small picture of a photo, boxes burned in. */
    async small(machineId: string, id: string, wanted?: AbortSignal): Promise<Buffer> {
      const row = toAttachment(await rowOf(machineId, id));
      if (row.type === 'application/pdf') {
        throw new Problem(404, 'No picture', 'a paper has no small picture');
      }
      return smallOf(row.sha256, row.covers, wanted);
    },

    /** A picture of a photo that fits a screen, without its boxes: for the lab's own eyes. */
    async view(
      machineId: string,
      id: string,
      wanted?: AbortSignal,
    ): Promise<{ row: Attachment; bytes: Buffer }> {
      const row = photoOnly(toAttachment(await rowOf(machineId, id)));
      const bytes = await derived(
        `${row.sha256}-view.webp`,
        async () => thumbnail(await bytesOf(row.sha256), [], VIEW_PX),
        wanted,
      );
      return { row, bytes };
    },

    /** A piece of a photo at its full size, without its boxes. */
    async tile(
      machineId: string,
      id: string,
      at: { column: number; row: number },
      wanted?: AbortSignal,
    ): Promise<{ row: Attachment; bytes: Uint8Array }> {
      const row = photoOnly(toAttachment(await rowOf(machineId, id)));
      const { sha256 } = row;
      const job = { do: 'tile' as const, file: folder.pathOf(sha256), sha256, ...at };
      const done = await inThread(() => pictureWork(job), wanted);
      if (!('tile' in done) || !done.tile) {
        throw new Problem(404, 'No such piece', 'the photo ends before it');
      }
      return { row, bytes: done.tile };
    },

    /** Measures what is marked in a photo. */
    async measure(
      machineId: string,
      id: string,
      marks: PhotoMarks,
      wanted?: AbortSignal,
    ): Promise<KeptMeasures> {
      const { sha256, widthPx, heightPx, focalPx } = photoOnly(
        toAttachment(await rowOf(machineId, id)),
      );
      const job = {
        do: 'measure' as const,
        file: folder.pathOf(sha256),
        sha256,
        size: [widthPx!, heightPx!] as const,
        lens: { focalPx },
        marks,
      };
      const done = await inThread(() => pictureWork(job), wanted);
      if (!('measures' in done)) throw new Error('the thread of pictures answered something else');
      return done.measures;
    },

    /** Parts of a photo that are found by themselves, and not marked yet. */
    async propose(
      machineId: string,
      id: string,
      marks: PhotoMarks,
      of: readonly Sought[],
      wanted?: AbortSignal,
    ): Promise<Proposal[]> {
      const { sha256, focalPx } = photoOnly(toAttachment(await rowOf(machineId, id)));
      const file = folder.pathOf(sha256);
      const lens = { focalPx };
      const job = { do: 'propose' as const, file, sha256, lens, marks, of };
      const done = await inThread(() => pictureWork(job), wanted);
      if (!('proposals' in done)) throw new Error('the thread of pictures answered something else');
      return done.proposals;
    },

    async close(): Promise<void> {
      await pictureWork.end?.();
    },

    /** A picture of a photo for a guide: large enough to be read, boxes burned in. */
    async forReading(machineId: string, id: string): Promise<Buffer> {
      const row = toAttachment(await rowOf(machineId, id));
      const bytes = await bytesOf(row.sha256);
      return oneByOne(() => thumbnail(bytes, row.covers, READING_PX));
    },

    /** What goes out with a machine: those of its photos and papers that may, and that somebody looked at. */
    async exported(machineId: string): Promise<Attachment[]> {
      const rows = await Rows.findAll({
        where: { machineId, putAsideAt: null, exported: true, looked: true },
        order: [
          ['createdAt', 'ASC'],
          ['id', 'ASC'],
        ],
        limit: MAX_ATTACHMENTS,
      });
      return rows.map(toAttachment);
    },
  };
}
