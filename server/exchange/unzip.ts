import type { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { promisify } from 'node:util';
import { open, type Entry, type ZipFile } from 'yauzl';
import { Problem } from '../security/problem';

export const MAX_ENTRIES = 20_000;
export const MAX_ENTRY = 26 * 1024 * 1024;

/** A file that cannot be read, in words that go on from its name. */
export class Unreadable extends Error {}

/** Files of a zip, each unpacked when it is asked for. */
export interface ZipFiles {
  names: readonly string[];
  /** What a file unpacks to, by the list; more than that is never read of it. */
  bytesOf(name: string): number;
  /**
   * One file.
   *
   * @throws Unreadable where it is not there, broken or larger than is taken
   */
  read(name: string): Promise<Buffer>;
  /** One file as it is unpacked; as `read` where it is not there. */
  pieces(name: string): AsyncIterable<Uint8Array>;
  close(): void;
}

const broken = () => new Problem(422, 'Broken zip', 'the zip cannot be unpacked');

/**
 * Opens a zip on disk. Of what its list states no size is trusted: a file that unpacks to more than the list says is broken.
 *
 * @param path the zip
 * @param most bytes that one file may unpack to
 * @throws Problem 422 where it is broken or its list says that it holds too much
 */
export async function openZip(path: string, most = MAX_ENTRY): Promise<ZipFiles> {
  let zip: ZipFile;
  try {
    zip = await promisify<string, object, ZipFile>(open)(path, {
      lazyEntries: true,
      autoClose: false,
      validateEntrySizes: true,
    });
  } catch {
    throw broken();
  }
  const entries = new Map<string, Entry>();
  try {
    await new Promise<void>((resolve, reject) => {
      zip.on('error', () => reject(broken()));
      zip.on('end', resolve);
      zip.on('entry', (entry: Entry) => {
        if (entries.size >= MAX_ENTRIES) {
          reject(new Problem(422, 'Too much', `the zip holds more than ${MAX_ENTRIES} files`));
          return;
        }
        if (entry.uncompressedSize > most) {
          const name = entry.fileName.slice(0, 80);
          reject(new Problem(422, 'Too much', `${name} unpacks to more than is taken`));
          return;
        }
        if (!entry.fileName.endsWith('/')) entries.set(entry.fileName, entry);
        zip.readEntry();
      });
      zip.readEntry();
    });
  } catch (cause) {
    zip.close();
    throw cause;
  }
  const streamOf = async (name: string): Promise<Readable> => {
    const entry = entries.get(name);
    if (!entry) throw new Unreadable('is named in the list but not in the zip');
    return promisify<Entry, Readable>((e, done) =>
      zip.openReadStream(e, (error, stream) => done(error, stream)),
    )(entry).catch(() => {
      throw new Unreadable('cannot be unpacked');
    });
  };
  return {
    names: [...entries.keys()],
    bytesOf: (name) => entries.get(name)?.uncompressedSize ?? 0,
    async read(name) {
      const stream = await streamOf(name);
      return buffer(stream).catch(() => {
        throw new Unreadable('cannot be unpacked');
      });
    },
    async *pieces(name) {
      const stream = await streamOf(name);
      try {
        for await (const piece of stream) yield piece as Uint8Array;
      } catch {
        throw new Unreadable('cannot be unpacked');
      }
    },
    close: () => zip.close(),
  };
}
