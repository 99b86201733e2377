import { z } from 'zod';
import { LIBRARY_FILE } from '../database/examineFolder';

/** It says what else is in a backup. */
export const MANIFEST_ENTRY = 'backup.json';
/** The last entry, the hash of the one before as `sha256sum` writes it: one that was cut off has none. */
export const SEAL_ENTRY = 'backup.json.sha256';
export const sealOf = (sha256: string): string => `${sha256}  ${MANIFEST_ENTRY}\n`;
export const MAX_MANIFEST_BYTES = 256 * 1024 * 1024;

/** Entries that a backup may hold beside its list: the library, and files under their hash. */
export const isEntryName = (name: string): boolean =>
  name === LIBRARY_FILE || /^files\/([0-9a-f]{2})\/\1[0-9a-f]{62}$/.test(name);

/** The hash under which a file is kept; null for the library itself. */
export const hashInName = (name: string): string | null =>
  name === LIBRARY_FILE ? null : name.slice(-64);

export const backupManifest = z.object({
  format: z.literal('zugluft-backup'),
  formatVersion: z.literal(1),
  createdAt: z.string(),
  /** Changes that the library knows, oldest first. */
  migrations: z.array(z.string()),
  /** Rows of each table. */
  rows: z.record(z.string(), z.number().int()),
  entries: z.array(
    z.object({
      name: z.string().refine(isEntryName, 'is no file of a backup'),
      bytes: z.number().int().min(0),
      sha256: z.string().regex(/^[0-9a-f]{64}$/),
    }),
  ),
  /** Hashes of files that the library names and that were not there. */
  missing: z.array(z.string()),
  /** Hashes under which something else lay already when the backup was made. */
  damaged: z.array(z.string()),
});
export type BackupManifest = z.infer<typeof backupManifest>;

/** A backup that cannot be used, or a place where none can be written, in words. */
export class BackupProblem extends Error {}
