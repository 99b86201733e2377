import type { PART_CHANNELS } from '@zugluft/core/logs/channelNames';
import { partsOf, type Draft } from '../../documents/record/draft';

/** Ids of the parts of a record that a channel may be of. */
export function partIdsOfDraft(
  draft: Draft,
): Record<(typeof PART_CHANNELS)[number], readonly string[]> {
  const ids = (list: 'fans' | 'finStacks' | 'heatPipes') => partsOf(draft, list).map((p) => p.id);
  const stacks = ids('finStacks');
  return { fanRpm: ids('fans'), exhaustC: stacks, finC: stacks, pipeC: ids('heatPipes') };
}
