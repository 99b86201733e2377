import { useSearchParams } from 'react-router';
import { DocumentHistory } from '../../documents/DocumentHistory';
import { useMachineFile } from '../../documents/record/MachineFile';
import { OnceMade } from '../../documents/record/OnceMade';
import { useDocument } from '../../documents/useDocument';

const KINDS = [
  ['record', 'Record'],
  ['log', 'Log of the opening'],
  ['unit', 'Unit'],
] as const;
type Kind = (typeof KINDS)[number][0];

/** What was changed of a machine's file, document by document; all of it can be had back. */
export function HistoryStep() {
  return (
    <OnceMade>
      <History />
    </OnceMade>
  );
}

function History() {
  const { machine, kept } = useMachineFile();
  const [view, setView] = useSearchParams();
  const kind = KINDS.find(([k]) => k === view.get('of'))?.[0] ?? 'record';
  return (
    <section aria-label="history">
      <div className="flex items-baseline justify-between">
        <h2 className="font-semibold mb-1">History</h2>
        <a
          href={`/api/exchange/machines/${machine.id}.json`}
          download
          className="text-quiet text-[0.9rem] underline underline-offset-2 hover:text-ink"
        >
          export this record, JSON
        </a>
      </div>
      <p className="flex gap-4 text-[0.9rem] text-quiet mb-2">
        {KINDS.map(([k, name]) => (
          <button
            key={k}
            type="button"
            aria-pressed={kind === k}
            className={`cursor-pointer hover:text-ink ${kind === k ? 'text-ink font-semibold' : ''}`}
            onClick={() => setView(k === 'record' ? {} : { of: k }, { replace: true })}
          >
            {name}
          </button>
        ))}
      </p>
      {kind === 'record' ? (
        <>
          <DocumentHistory kind="record" id={machine.id} keeper={kept.keeper} />
          <p className="text-small text-quiet pt-2">
            Cooling is shared by all units and states of the variant: stepping back takes them
            along.
          </p>
        </>
      ) : (
        <OfKind key={kind} kind={kind} id={kind === 'unit' ? machine.unit.id : machine.id} />
      )}
    </section>
  );
}

function OfKind({ kind, id }: { kind: Exclude<Kind, 'record'>; id: string }) {
  const { keeper, error } = useDocument(kind, id);
  if (error) return <p className="text-heat">It could not be read: {error.message}</p>;
  if (!keeper) return <p className="text-quiet">Opening.</p>;
  return <DocumentHistory kind={kind} id={id} keeper={keeper as never} />;
}
