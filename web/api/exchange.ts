import type { ImportItem, WhenChanged } from '@zugluft/core/library/answers';
import { fetchJson, HttpProblem } from './http';

export const MOST_IMPORT_MB = 25;

/** Sends a file: to see what an import would do, or to do it. */
export async function importFile(
  file: File,
  options: { apply: boolean; changed: WhenChanged; signal?: AbortSignal },
): Promise<ImportItem[]> {
  if (file.size > MOST_IMPORT_MB * 1024 * 1024) {
    throw new HttpProblem(413, `the file is larger than ${MOST_IMPORT_MB} MB`);
  }
  const params = new URLSearchParams({
    name: file.name.slice(0, 200),
    apply: options.apply ? '1' : '0',
    changed: options.changed,
  });
  const { items } = await fetchJson<{ items: ImportItem[] }>(
    `/api/exchange/import?${params.toString()}`,
    { method: 'POST', body: file, ...(options.signal ? { signal: options.signal } : {}) },
  );
  return items;
}
