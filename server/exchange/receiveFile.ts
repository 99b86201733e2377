import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, open, readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Problem } from '../security/problem';

const MB = 1024 * 1024;
export const MAX_TEXT = 25 * MB;
export const MAX_ZIP = 2048 * MB;

export interface Received {
  path: string;
  bytes: number;
  zip: boolean;
  remove(): Promise<void>;
}

const tooLarge = (most: number) =>
  new Problem(413, 'Too large', `the file is larger than ${most / MB} MB`);

/**
 * Writes a body to a file of its own, counting while it comes in.
 *
 * @param body the bytes as they come
 * @param dataFolder the data directory
 * @throws Problem 413 as soon as there are more than a zip, or anything else, may have
 */
export async function receiveFile(body: Readable, dataFolder: string): Promise<Received> {
  const folder = join(dataFolder, 'incoming');
  await mkdir(folder, { recursive: true });
  const path = join(folder, randomUUID());
  const remove = () => rm(path, { force: true });
  let bytes = 0;
  let first = Buffer.alloc(0);
  try {
    await pipeline(
      body,
      async function* (source: AsyncIterable<Buffer>) {
        for await (const chunk of source) {
          if (first.length < 2) first = Buffer.concat([first, chunk.subarray(0, 2)]);
          bytes += chunk.length;
          const most = isZip(first) ? MAX_ZIP : MAX_TEXT;
          if (bytes > most) throw tooLarge(most);
          yield chunk;
        }
      },
      createWriteStream(path),
    );
  } catch (cause) {
    await remove();
    throw cause;
  }
  return { path, bytes, zip: isZip(first), remove };
}

const isZip = (first: Buffer) => first[0] === 0x50 && first[1] === 0x4b;

/** A file in the format of a body, whole: for what is known to be small. */
export async function readWhole(received: Received): Promise<Buffer> {
  const file = await open(received.path);
  try {
    return await file.readFile();
  } finally {
    await file.close();
  }
}

/** Removes what an import that was cut off left behind. */
export async function tidyIncoming(dataFolder: string): Promise<void> {
  const folder = join(dataFolder, 'incoming');
  for (const name of await readdir(folder).catch(() => [])) {
    await rm(join(folder, name), { force: true });
  }
}
