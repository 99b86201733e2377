import { useQuery } from '@tanstack/react-query';
import type { EditionChanges } from '@zugluft/core/report/edition';
import { editionKeys, readEdition } from '../../api/editions';
import { valueWordsOf } from '../../documents/record/fieldWords';
import { pathWordsOf } from '../../documents/record/figureWords';
import { newsOf } from './newsOf';

/** What an edition says otherwise than the one before. */
export function EditionNews({ machineId, number }: { machineId: string; number: number }) {
  const { data, error } = useQuery({
    queryKey: editionKeys.one(machineId, number),
    queryFn: ({ signal }) => readEdition(machineId, number, signal),
    // an edition never changes
    staleTime: Infinity,
    retry: false,
  });
  if (error) {
    return (
      <p role="alert" className="text-small text-heat">
        It could not be read: {error.message}.
      </p>
    );
  }
  if (!data) return <p className="text-small text-quiet">Reading.</p>;
  if (!data.changes) return null;
  const rows = newsOf(
    data.changes as EditionChanges,
    pathWordsOf('record'),
    valueWordsOf('record'),
  );
  return (
    <div
      className="overflow-x-auto"
      tabIndex={0}
      role="region"
      aria-label={`new in edition ${number}`}
    >
      <table className="text-[0.92rem] mt-1">
        <thead className="text-quiet text-left text-small">
          <tr>
            <th scope="col" className="font-normal pr-6">
              what
            </th>
            <th scope="col" className="font-normal pr-6">
              edition {number - 1}
            </th>
            <th scope="col" className="font-normal">
              edition {number}
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ what, before, after }, i) => (
            <tr key={i} className="align-top">
              <th scope="row" className="font-normal text-left pr-6">
                {what}
              </th>
              <td className="pr-6">{before}</td>
              <td>{after}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
