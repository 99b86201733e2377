import type { KindName } from '@zugluft/core/documents/kinds';
import { diffRecords } from '@zugluft/core/family/diffRecords';
import { valueWordsOf } from './record/fieldWords';
import { holdsInnerName, pathWordsOf } from './record/figureWords';

const MAX_WORDS = 90;

/** What a change was, in words: “depth, fins-left: 24 → 30”; with the place of its first field. */
export function describeChange(
  kind: KindName,
  before: unknown,
  after: unknown,
): { label: string; place: string } {
  const differences = diffRecords(before, after);
  const [first] = differences;
  if (!first) return { label: 'nothing', place: '' };
  const name = pathWordsOf(kind)(first.path);
  const more = differences.length > 1 ? ` and ${differences.length - 1} more` : '';
  const value = (x: unknown) => valueWordsOf(kind)(x, first.path);
  const values = `${value(first.before)} → ${value(first.after)}`;
  const words =
    first.before === undefined
      ? `${name} added`
      : first.after === undefined
        ? `${name} removed`
        : holdsInnerName(values)
          ? `${name} changed`
          : `${name}: ${values}`;
  return { label: `${words.slice(0, MAX_WORDS)}${more}`, place: first.path };
}
