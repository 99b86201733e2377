import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { unsentDocuments } from './keepers';
import type { Draft } from './record/draft';
import { machineName } from './record/machineName';

/** New machines that were typed while the server was away: they stand in no list but this one until it has them. */
export function UnsentMachines() {
  const { data } = useQuery({
    queryKey: ['machines', 'unsent'],
    queryFn: () => unsentDocuments('record').catch(() => []),
    networkMode: 'always',
    gcTime: 0,
  });
  if (!data?.length) return null;
  return (
    <p className="border-l-2 border-heat pl-3 my-2">
      In this browser only, not in the library yet:{' '}
      {data.map(({ id, value }, i) => {
        const { name, variant } = machineName(value as Draft);
        return (
          <span key={id}>
            {i > 0 && ', '}
            <Link
              to={`/machines/${id}/identify`}
              state={{ fresh: true }}
              className="underline underline-offset-2"
            >
              {[name, variant].filter(Boolean).join(', ') || 'unnamed machine'}
            </Link>
          </span>
        );
      })}
      . Open it to send it.
    </p>
  );
}
