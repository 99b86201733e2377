import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import { useState } from 'react';
import { toast } from 'sonner';
import type { KindName, ValueOf } from '@zugluft/core/documents/kinds';
import { diffRecords } from '@zugluft/core/family/diffRecords';
import { documentKeys, listRevisions, readRevision, type RevisionSummary } from '../api/documents';
import type { Keeper } from './keeper';
import { DifferenceList } from './record/DifferenceList';
import { useKept } from './useDocument';
import { Pages } from '../kit/Pages';

const MAX_SHOWN = 40;

function wordsOf({ revision, note, changed }: RevisionSummary): string {
  const fields = `${changed} ${changed === 1 ? 'field' : 'fields'}`;
  if (note) return changed ? `${note}, ${fields}` : note;
  if (revision === 1) return 'first kept';
  return changed === 0 ? 'nothing changed' : fields;
}

/** Every change of a document that was kept, newest first; any of them can be stepped back to, which is one more change. */
export function DocumentHistory<K extends KindName>({
  kind,
  id,
  keeper,
}: {
  kind: K;
  id: string;
  keeper: Keeper<ValueOf<K>>;
}) {
  const { value, revision } = useKept(keeper);
  const [page, setPage] = useState(1);
  const [open, setOpen] = useState<number | null>(null);
  const { data, error } = useQuery({
    queryKey: documentKeys.history(kind, id, page, revision),
    queryFn: () => listRevisions(kind, id, page),
    placeholderData: keepPreviousData,
  });
  const chosen = useQuery({
    queryKey: documentKeys.revision(kind, id, open),
    queryFn: () => readRevision(kind, id, open!),
    enabled: open !== null,
    staleTime: Infinity,
  });
  const stepBack = () => {
    if (!chosen.data) return;
    const to = chosen.data.value;
    keeper.change(() => to);
    toast(`Stepped back to revision ${chosen.data.revision}. Undo takes that back.`);
  };
  const pages = data ? Math.ceil(data.total / data.pageSize) : 1;
  const against = chosen.data ? diffRecords(chosen.data.value, value) : [];
  return (
    <>
      {error && <p className="text-heat">It could not be read: {error.message}</p>}
      {data?.total === 0 && (
        <p className="text-quiet">Nothing was written yet: what stands there is built in.</p>
      )}
      <ol data-testid="history">
        {data?.items.map((r) => (
          <li key={r.revision} className="border-b border-rule py-1.5">
            <button
              type="button"
              className="w-full text-left grid grid-cols-[4rem_9rem_minmax(0,1fr)] gap-3 cursor-pointer hover:bg-base-200"
              aria-expanded={open === r.revision}
              onClick={() => setOpen((o) => (o === r.revision ? null : r.revision))}
            >
              <span className="figure">{r.revision}</span>
              <span className="figure text-small text-quiet">
                {format(new Date(r.at), 'yyyy-MM-dd HH:mm')}
              </span>
              <span>
                {wordsOf(r)}
                {r.by !== null && (
                  <span className="text-quiet">
                    , <bdi>{r.by}</bdi>
                  </span>
                )}
              </span>
            </button>
            {r.first.length > 0 && <DifferenceList kind={kind} differences={r.first} />}
            {r.changed > r.first.length && (
              <p className="text-small text-quiet px-1.5">and {r.changed - r.first.length} more</p>
            )}
            {open === r.revision && chosen.data?.revision === r.revision && (
              <div className="border-l-2 border-air pl-3 my-2">
                {against.length === 0 ? (
                  <p className="text-quiet text-[0.9rem]">This is what stands there now.</p>
                ) : (
                  <>
                    <p className="text-[0.9rem] mb-1">
                      Since then {against.length} {against.length === 1 ? 'field' : 'fields'}{' '}
                      changed: then, and now.
                    </p>
                    <DifferenceList
                      differences={against.slice(0, MAX_SHOWN)}
                      before="then"
                      after="now"
                    />
                    <button type="button" className="btn btn-sm mt-2" onClick={stepBack}>
                      Step back to revision {r.revision}
                    </button>
                  </>
                )}
              </div>
            )}
          </li>
        ))}
      </ol>
      <Pages page={page} pages={pages} turn={setPage} />
    </>
  );
}
