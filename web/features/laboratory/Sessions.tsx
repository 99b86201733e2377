import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { format } from 'date-fns';
import { endSession, fetchSession, fetchSessions } from '../../api/session';

const when = (at: string) => format(new Date(at), 'yyyy-MM-dd HH:mm');

/** Who is signed in where; any of them can be ended. Nothing where nobody signs in. */
export function Sessions() {
  const queries = useQueryClient();
  const { data: own } = useQuery({ queryKey: ['session'], queryFn: fetchSession, retry: false });
  const { data } = useQuery({
    queryKey: ['sessions'],
    queryFn: fetchSessions,
    enabled: own?.needed === true,
  });
  const ending = useMutation({
    mutationFn: endSession,
    onSuccess: (now) => queries.setQueryData(['sessions'], now),
  });
  if (!own?.needed || !data) return null;
  return (
    <section aria-label="Signed in" className="border-b border-rule py-3 mb-4">
      <h2 className="font-semibold mb-1">Signed in</h2>
      <ul data-testid="sessions">
        {data.items.map((s) => (
          <li key={s.id} className="flex flex-wrap gap-x-4 items-center py-1 text-[0.9rem]">
            <bdi className="font-semibold">{s.name}</bdi>
            <span className="text-quiet">
              {s.role === 'guest' ? 'guest, reading only' : 'may change'}, since {when(s.since)}{' '}
              from <span className="figure">{s.address}</span>
            </span>
            {s.own ? (
              <span className="text-quiet">this browser</span>
            ) : (
              own.role === 'member' && (
                <button
                  type="button"
                  className="btn btn-xs"
                  disabled={ending.isPending}
                  onClick={() => ending.mutate(s.id)}
                >
                  End it
                </button>
              )
            )}
          </li>
        ))}
      </ul>
      {ending.error && (
        <p className="text-heat" role="alert">
          It could not be ended: {ending.error.message}.
        </p>
      )}
    </section>
  );
}
