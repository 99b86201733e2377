import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, readdir, readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { sha256Of } from './sha256Of';

/** More bytes came than are taken. */
export class TooLarge extends Error {}

export type FileFolder = ReturnType<typeof createFileFolder>;

/**
 * Bytes of photos and papers in a folder beside the library, each under the hash of its content, so that the same photo twice
 * lies there once and a file that rotted can be told.
 *
 * @param dataFolder the data directory
 */
export function createFileFolder(dataFolder: string) {
  const root = join(dataFolder, 'files');
  const folderOf = (sha256: string) => join(root, sha256.slice(0, 2));
  const small = join(dataFolder, 'thumbnails');

  /** Written under another name first and flushed: what is there under its name is whole. */
  const writeWhole = async (folder: string, name: string, bytes: Uint8Array) => {
    await mkdir(folder, { recursive: true });
    const draft = join(folder, `.${randomUUID()}`);
    try {
      const file = await open(draft, 'w');
      try {
        await file.writeFile(bytes);
        await file.sync();
      } finally {
        await file.close();
      }
      await rename(draft, join(folder, name));
    } catch (cause) {
      // on a full disk too nothing is left half
      await rm(draft, { force: true });
      throw cause;
    }
    const directory = await open(folder, 'r');
    await directory.sync().catch(() => undefined);
    await directory.close();
  };

  /** A small picture that was made before, or null. */
  const smallThere = (key: string): Promise<Buffer | null> =>
    readFile(join(small, key)).catch(() => null);

  return {
    /** Keeps bytes on disk before it returns, and says their hash. */
    async keep(bytes: Uint8Array): Promise<string> {
      const sha256 = await sha256Of(bytes);
      await writeWhole(folderOf(sha256), sha256, bytes);
      return sha256;
    },

    /**
     * Keeps bytes as they come, without holding them all, and says their hash and how many they were.
     *
     * @param pieces in order
     * @param most bytes that are taken
     * @throws TooLarge where there are more; nothing is left of them then, nor where they break off
     */
    async keepPieces(
      pieces: AsyncIterable<Uint8Array>,
      most: number,
    ): Promise<{ sha256: string; bytes: number }> {
      await mkdir(root, { recursive: true });
      const draft = join(root, `.${randomUUID()}`);
      const hash = createHash('sha256');
      let bytes = 0;
      try {
        const file = await open(draft, 'w');
        try {
          for await (const piece of pieces) {
            bytes += piece.length;
            if (bytes > most) throw new TooLarge();
            hash.update(piece);
            await file.write(piece);
          }
          await file.sync();
        } finally {
          await file.close();
        }
        const sha256 = hash.digest('hex');
        await mkdir(folderOf(sha256), { recursive: true });
        await rename(draft, join(folderOf(sha256), sha256));
        return { sha256, bytes };
      } catch (cause) {
        await rm(draft, { force: true });
        throw cause;
      }
    },

    /** Where bytes of a hash lie. */
    pathOf: (sha256: string): string => join(folderOf(sha256), sha256),

    read: (sha256: string): Promise<Buffer> => readFile(join(folderOf(sha256), sha256)),

    smallThere,

    /** A small picture, from the folder where it was made before. */
    async small(key: string, make: () => Promise<Buffer>): Promise<Buffer> {
      const there = await smallThere(key);
      if (there) return there;
      const bytes = await make();
      await writeWhole(small, key, bytes);
      return bytes;
    },

    /** Removes what a write that was cut off left half done. */
    async tidy(): Promise<void> {
      const folders = await readdir(root).catch(() => []);
      for (const folder of [root, ...folders.map((f) => join(root, f)), small]) {
        for (const name of await readdir(folder).catch(() => [])) {
          if (name.startsWith('.')) await rm(join(folder, name), { force: true });
        }
      }
    },
  };
}
