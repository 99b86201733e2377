import type { Difference } from '@zugluft/core/family/diffRecords';
import { figureWords } from './figureWords';
import { fieldWords } from '../../kit/fieldWords';

/** Fields that differ, one a line: what it is, what stood there, what stands there now. */
export function DifferenceList({
  differences,
  before = 'before',
  after = 'after',
}: {
  differences: readonly Difference[];
  before?: string;
  after?: string;
}) {
  return (
    <table className="w-full text-left border-collapse text-[0.9rem]">
      <thead className="sr-only">
        <tr>
          <th>field</th>
          <th>{before}</th>
          <th>{after}</th>
        </tr>
      </thead>
      <tbody>
        {differences.map((d) => (
          <tr key={d.path} className="border-b border-rule align-top">
            <td className="px-1.5 py-0.5 w-2/5" title={d.path}>
              {figureWords(d.path)}
            </td>
            <td className="px-1.5 py-0.5 figure text-[0.85rem] text-quiet break-words">
              {fieldWords(d.before)}
            </td>
            <td className="px-1.5 py-0.5 figure text-[0.85rem] break-words">
              {fieldWords(d.after)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
