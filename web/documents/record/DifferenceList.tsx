import type { Difference } from '@zugluft/core/family/diffRecords';
import type { KindName } from '@zugluft/core/documents/kinds';
import { valueWordsOf } from './fieldWords';
import { pathWordsOf } from './figureWords';

/** Fields that differ, one a line: what it is, what stood there, what stands there now. */
export function DifferenceList({
  differences,
  kind = 'record',
  before = 'before',
  after = 'after',
}: {
  differences: readonly Difference[];
  kind?: KindName;
  before?: string;
  after?: string;
}) {
  const nameOf = pathWordsOf(kind);
  const valueOf = valueWordsOf(kind);
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
            <td className="px-1.5 py-0.5 w-2/5">{nameOf(d.path)}</td>
            <td className="px-1.5 py-0.5 figure text-small text-quiet break-words">
              {valueOf(d.before, d.path)}
            </td>
            <td className="px-1.5 py-0.5 figure text-small break-words">
              {valueOf(d.after, d.path)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
