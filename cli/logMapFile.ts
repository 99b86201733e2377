import { z } from 'zod';
import { PART_CHANNELS, PLAIN_CHANNELS, type Channel } from '@zugluft/core/logs/channelNames';
import { TIME_FORMATS } from '@zugluft/core/logs/logTime';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import { BadInput } from './badInput';
import { textOfFile } from './recordFile';

const isChannel = (name: string): name is Channel =>
  (PLAIN_CHANNELS as readonly string[]).includes(name) ||
  [...PART_CHANNELS, 'other'].some((p) => name.startsWith(`${p}.`) && name.length > p.length + 1);

const mapSchema = z.strictObject({
  separator: z.enum([',', ';', '\t', '|']).optional(),
  decimal: z.enum(['.', ',']).optional(),
  time: z
    .strictObject({
      column: z.string().optional(),
      format: z.enum(TIME_FORMATS).optional(),
    })
    .optional(),
  channels: z
    .array(
      z.strictObject({
        column: z.string(),
        is: z.string().refine(isChannel, { error: 'is no channel that a log may hold' }),
        unit: z.string().optional(),
      }),
    )
    .max(2000)
    .optional(),
});

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
  const read = mapSchema.safeParse(json);
  if (read.success) return read.data as LogMap;
  const [issue] = read.error.issues;
  throw new BadInput(['--map', ...(issue?.path ?? [])].join('.'), issue?.message ?? 'no map');
}
