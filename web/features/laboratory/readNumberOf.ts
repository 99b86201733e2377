import type { z } from 'zod';

/** Reads a typed number by a setting's schema; what is wrong with it in words. */
export const readNumberOf =
  (schema: z.ZodType<number>) =>
  (typed: string): { value: number } | { problem: string } => {
    const x = typed.trim() === '' ? NaN : Number(typed.trim().replace(',', '.'));
    if (!Number.isFinite(x)) return { problem: 'needs a number' };
    const read = schema.safeParse(x);
    return read.success ? { value: read.data } : { problem: read.error.issues[0]!.message };
  };
