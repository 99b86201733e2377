import type { Difference } from '@zugluft/core/family/diffRecords';
import { HttpProblem } from './http';

export interface ImportItem {
  label: string;
  name: string;
  action: 'new' | 'changed' | 'same' | 'refused';
  reasons: { path: string; message: string }[];
  machineId: string | null;
  changed: number;
  first: Difference[];
}

export type Changed = 'update' | 'new' | 'skip';

export const MOST_IMPORT_MB = 25;

/** Sends a file: to see what an import would do, or to do it. */
export async function importFile(
  file: File,
  options: { apply: boolean; changed: Changed; signal?: AbortSignal },
): Promise<ImportItem[]> {
  if (file.size > MOST_IMPORT_MB * 1024 * 1024) {
    throw new HttpProblem(413, `the file is larger than ${MOST_IMPORT_MB} MB`);
  }
  const params = new URLSearchParams({
    name: file.name.slice(0, 200),
    apply: options.apply ? '1' : '0',
    changed: options.changed,
  });
  let response: Response;
  try {
    response = await fetch(`/api/exchange/import?${params.toString()}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream' },
      body: file,
      ...(options.signal ? { signal: options.signal } : {}),
    });
  } catch (cause) {
    if ((cause as Error).name === 'AbortError') throw cause;
    throw new HttpProblem(0, 'the server does not answer');
  }
  const body = (await response.json().catch(() => ({}))) as Record<string, unknown>;
  if (!response.ok) {
    throw new HttpProblem(
      response.status,
      String(body['detail'] ?? `the server answered ${response.status}`),
    );
  }
  return body['items'] as ImportItem[];
}
