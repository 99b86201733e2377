import type { z } from 'zod';

/** What is wrong with something that came in, each by the path of its field: one that nobody knows by its own. */
export function issuePlaces(error: z.ZodError): { path: string; message: string }[] {
  return error.issues.flatMap((i) => {
    const path = i.path.map(String);
    if (i.code !== 'unrecognized_keys') return [{ path: path.join('.'), message: i.message }];
    return i.keys.map((key) => ({
      path: [...path, key.slice(0, 120)].join('.'),
      message: 'is not known here',
    }));
  });
}
