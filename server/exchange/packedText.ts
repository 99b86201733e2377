import { createDeflateRaw, createInflateRaw } from 'node:zlib';
import { once } from 'node:events';
import { Readable } from 'node:stream';

/** Text that is written now and read later, packed meanwhile: several files of a zip can be made in one pass through the library. */
export interface PackedText {
  write(text: string): Promise<void>;
  /** All that was written; nothing can be written after. */
  read(): AsyncIterable<Uint8Array>;
}

export function packedText(): PackedText {
  const parts: Buffer[] = [];
  const packing = createDeflateRaw({ level: 1 });
  packing.on('data', (part: Buffer) => parts.push(part));
  return {
    async write(text) {
      if (!packing.write(text)) await once(packing, 'drain');
    },
    async *read() {
      const ended = once(packing, 'end');
      packing.end();
      await ended;
      yield* Readable.from(parts, { objectMode: false }).pipe(
        createInflateRaw(),
      ) as AsyncIterable<Uint8Array>;
    },
  };
}
