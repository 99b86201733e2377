import type { ImportItem, WhenChanged } from '@zugluft/core/library/answers';
import { fetchLines, HttpProblem } from './http';

const MAX_IMPORT_MB = 2048;

/**
 * Sends a file: to see what an import would do, or to do it.
 *
 * @param progress told how many machines are done, of how many
 * @throws HttpProblem with what was done until then as `body.items`
 */
export async function importFile(
  file: File,
  options: { apply: boolean; changed: WhenChanged; signal?: AbortSignal },
  progress: (done: number, of: number) => void = () => undefined,
): Promise<ImportItem[]> {
  if (file.size > MAX_IMPORT_MB * 1024 * 1024) {
    throw new HttpProblem(413, `the file is larger than ${MAX_IMPORT_MB / 1024} GB`);
  }
  const params = new URLSearchParams({
    name: file.name.slice(0, 200),
    apply: options.apply ? '1' : '0',
    changed: options.changed,
  });
  const items: ImportItem[] = [];
  let of = 0;
  let whole = false;
  await fetchLines<{ of?: number; item?: ImportItem; done?: true }>(
    `/api/exchange/import?${params.toString()}`,
    { method: 'POST', body: file, ...(options.signal ? { signal: options.signal } : {}) },
    (line) => {
      of = line.of ?? of;
      if (line.item) items.push(line.item);
      whole ||= line.done === true;
      progress(items.length, of);
    },
  );
  if (!whole) {
    throw new HttpProblem(0, `the server stopped after ${items.length} of ${of}`, { items });
  }
  return items;
}
