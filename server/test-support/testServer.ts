import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import pino from 'pino';
import request from 'supertest';
import { createApp } from '../app';
import type { DoPictureJob } from '../attachments/pictureJobs';
import { openDatabase } from '../database/openDatabase';
import { computeWatts } from '../derived/computeWatts';
import { createLibrary, type Library } from '../library';
import { temporaryFolder } from './temporaryFolder';

const EXAMPLE = join(__dirname, '../../examples/one-die.json');

/** An open library in a folder, empty unless something is there; what fails beside requests fails the test. */
export async function testLibrary(
  folder = temporaryFolder(),
  pictureWork?: DoPictureJob,
): Promise<Library> {
  const db = await openDatabase(folder);
  const failures: unknown[] = [];
  const library = createLibrary(
    db,
    async (job) => computeWatts(job),
    (cause) => void failures.push(cause),
    ...([undefined, undefined, undefined, undefined, pictureWork] as const),
  );
  return {
    ...library,
    async close() {
      await library.close();
      if (failures.length) throw failures[0];
    },
  };
}

/**
 * An application over an empty library, made anew for each test of the file that calls this.
 *
 * @param pictureWork in place of what works on full pixels
 */
export function testServer(pictureWork?: DoPictureJob) {
  let library: Library;
  let app: ReturnType<typeof createApp>;
  beforeEach(async () => {
    library = await testLibrary(undefined, pictureWork);
    app = createApp(library, null, pino({ level: 'silent' }), {
      backupFolder: join(library.db.folder, 'backups'),
      // the library of a test is not opened anew: what was laid out is dropped
      async restore({ manifest, drop }) {
        await drop();
        return { manifest, aside: 'nowhere' };
      },
    });
  });
  afterEach(() => library.close());
  const host = (r: request.Test) => r.set('Host', '127.0.0.1:4180');
  const call = () => ({
    get: (url: string) => host(request(app).get(url)),
    post: (url: string) => host(request(app).post(url)),
    put: (url: string) => host(request(app).put(url)),
    delete: (url: string) => host(request(app).delete(url)),
  });
  const record = () => JSON.parse(readFileSync(EXAMPLE, 'utf8'));
  const create = async (r: unknown = record()) =>
    (await call().post('/api/machines').send({ record: r }).expect(201)).body;
  /** The list with all its watts. */
  const settled = async () => {
    await library.list.load();
    await library.watts.settled();
  };
  return {
    call,
    create,
    record,
    settled,
    library: () => library,
    db: () => library.db,
    app: () => app,
  };
}
