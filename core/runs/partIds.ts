import type { OpenCase } from '../case/openCase';
import type { Channel } from '../logs/channelNames';
import type { LogColumn } from '../logs/readLog';

/** Ids of parts that channels are of. */
export interface PartIds {
  fans: readonly string[];
  finStacks: readonly string[];
  pipes: readonly string[];
}

/** Ids of the parts of a case. */
export const partIdsOf = ({ data }: Pick<OpenCase, 'data'>): PartIds => ({
  fans: data.fans.map((f) => f.id),
  finStacks: data.stacks.map((s) => s.id),
  pipes: data.pipes.map((p) => p.id),
});

const LISTS: readonly [prefix: 'fanRpm' | 'exhaustC' | 'finC' | 'pipeC', list: keyof PartIds][] = [
  ['fanRpm', 'fans'],
  ['exhaustC', 'finStacks'],
  ['finC', 'finStacks'],
  ['pipeC', 'pipes'],
];

/**
 * Gives channels of parts the ids of a record: a log says “left” or “2” where the record has `fan-left` and `fan-right`.
 *
 * @param columns of a log
 * @param parts of the record
 */
export function withPartIds(columns: readonly LogColumn[], parts: PartIds): LogColumn[] {
  return columns.map((c) => {
    for (const [prefix, list] of LISTS) {
      if (!c.is.startsWith(`${prefix}.`)) continue;
      const id = idFor(c.is.slice(prefix.length + 1), parts[list]);
      return id === null ? c : { ...c, is: `${prefix}.${id}` as Channel };
    }
    return c;
  });
}

function idFor(said: string, ids: readonly string[]): string | null {
  if (ids.includes(said)) return said;
  const lower = said.toLowerCase();
  const like = ids.filter((id) => id.toLowerCase().split(/[-_ ]/).includes(lower));
  if (like.length === 1) return like[0]!;
  const number = Number(said);
  return Number.isInteger(number) && number >= 1 ? (ids[number - 1] ?? null) : null;
}
