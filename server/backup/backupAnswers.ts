import { z } from 'zod';

export const backupsAnswer = z.object({
  /** Where they lie. */
  folder: z.string(),
  items: z.array(z.object({ name: z.string(), bytes: z.number(), at: z.string() })),
});

export const restoredAnswer = z.object({
  createdAt: z.string(),
  machines: z.number(),
  /** Photos, papers and logs. */
  files: z.number(),
  /** Hashes of files that were not there when the backup was made. */
  missing: z.array(z.string()),
  /** Folder in which lies what was there before. */
  aside: z.string(),
});
