import { logLayoutSchema } from '@zugluft/core/runs/runDocument';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import { BadInput } from './badInput';
import { textOfFile } from './recordFile';

/**
 * What a file says of a log's layout.
 *
 * @throws BadInput where it is none
 */
export function logMapOfFile(file: string): LogMap {
  let json: unknown;
  try {
    json = JSON.parse(textOfFile(file, '--map'));
  } catch (cause) {
    if (cause instanceof BadInput) throw cause;
    throw new BadInput('--map', `not JSON: ${(cause as Error).message}`);
  }
  const read = logLayoutSchema.safeParse(json);
  if (read.success) return read.data as LogMap;
  const [issue] = read.error.issues;
  throw new BadInput(['--map', ...(issue?.path ?? [])].join('.'), issue?.message ?? 'no map');
}
