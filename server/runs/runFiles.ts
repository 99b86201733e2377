import { printedDocument } from '@zugluft/core/exchange/jsonFault';
import { createReadStream } from 'node:fs';
import type { Writable } from 'node:stream';
import { crc32, deflateRawSync } from 'node:zlib';
import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import type { KeptRun } from '@zugluft/core/library/runAnswers';
import type { RunDocument } from '@zugluft/core/runs/runDocument';
import { Problem } from '../security/problem';
import type { RunLogs } from './runLogs';

export const RUN_FILE = 'run.json';
const PIECE = 1 << 18;
/** What a zip calls the way in which its files are packed. */
const DEFLATE = 8;

/** A zip that is written while it is made, and waits for whoever reads it. */
export function zipTo(out: Writable) {
  let failed: Error | null = null;
  const zip = new Zip((error, chunk, last) => {
    if (error) failed = error;
    else if (!out.destroyed) out.write(chunk);
    if (last) out.end();
  });
  const ended = new Promise<void>((resolve, reject) => {
    out.once('error', reject);
    out.once('close', resolve);
    out.once('finish', resolve);
  });
  const drained = async () => {
    if (failed) throw failed;
    if (out.destroyed || !out.writableNeedDrain) return;
    await new Promise<void>((resolve) => {
      const go = () => {
        out.off('drain', go).off('close', go);
        resolve();
      };
      out.on('drain', go).on('close', go);
    });
  };
  return {
    gone: () => out.destroyed,
    drained,
    add(name: string, content: string): void {
      const bytes = strToU8(content);
      const file = new ZipPassThrough(name);
      // packed by Node's own packer, which takes a fifth of the time
      Object.assign(file, { compression: DEFLATE, crc: crc32(bytes), size: bytes.length });
      zip.add(file);
      file.ondata(null, deflateRawSync(bytes), true);
    },
    /** What is packed already goes in as it is. */
    addPacked(name: string, bytes: Uint8Array): void {
      const file = new ZipPassThrough(name);
      zip.add(file);
      file.push(bytes, true);
    },
    async addPieces(name: string, pieces: AsyncIterable<Uint8Array | string>): Promise<void> {
      const file = new ZipDeflate(name, { level: 6 });
      zip.add(file);
      for await (const piece of pieces) {
        if (out.destroyed) break;
        file.push(typeof piece === 'string' ? strToU8(piece) : piece);
        await drained();
      }
      file.push(new Uint8Array(0), true);
    },
    async end(): Promise<void> {
      zip.end();
      await ended;
      if (failed) throw failed;
    },
  };
}

export type ZipOut = ReturnType<typeof zipTo>;

/** A run as it travels: what was done, and what was foretold of it. */
export const travelling = ({ run, prediction }: KeptRun): RunDocument => {
  // what grows on this machine’s share is not there on another
  const { follows: _, ...rest } = run;
  return { ...rest, ...(prediction ? { prediction } : {}) };
};

/** Names of its logs in a zip: two of one name do not hide each other. */
export function logNames(run: RunDocument): Map<string, string> {
  return new Map(
    (run.logs ?? []).map((log, i) => {
      const plain = log.file.replace(/[^\p{L}\p{N}._-]+/gu, '-').slice(-100);
      return [log.id, `logs/${i + 1}-${plain}`];
    }),
  );
}

/**
 * Writes a run into a zip: `run.json`, its raw logs, and where told so the tidy samples.
 *
 * @param folder before each name, empty or ending with a slash
 * @param most bytes of a log that are taken along
 * @returns logs that stayed out: too large, or not here any more
 */
export async function addRun(
  zip: ZipOut,
  kept: KeptRun,
  logs: RunLogs,
  folder: string,
  most = Infinity,
): Promise<string[]> {
  const out: string[] = [];
  const names = logNames(kept.run);
  zip.add(`${folder}${RUN_FILE}`, printedDocument(travelling(kept)));
  for (const log of kept.run.logs ?? []) {
    if (zip.gone()) return out;
    const at = log.sha256 ? await logs.bytesOf(log.sha256).catch(missing) : null;
    if (!at || at.bytes > most) out.push(log.file);
    else {
      const pieces = createReadStream(at.path, { highWaterMark: PIECE });
      await zip.addPieces(`${folder}${names.get(log.id)!}`, pieces as AsyncIterable<Uint8Array>);
    }
  }
  return out;
}

const missing = (cause: unknown): null => {
  if (cause instanceof Problem) return null;
  throw cause;
};
