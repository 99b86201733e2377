import type { KindName } from '@zugluft/core/documents/kinds';
import { ConflictPanel } from './ConflictPanel';
import type { Keeper, KeepView } from './keeper';

/** What a document that could not be kept asks of somebody: to try again, or to choose where two changed one thing. */
export function KeptTrouble<T>({
  kind,
  view,
  keeper,
}: {
  kind: KindName;
  view: KeepView<T> | null;
  keeper: Pick<Keeper<T>, 'retry' | 'choose'> | null;
}) {
  return (
    <>
      {view?.state.kind === 'failed' && (
        <button type="button" className="btn btn-sm" onClick={keeper?.retry}>
          Try again
        </button>
      )}
      {view?.state.kind === 'conflict' && (
        <ConflictPanel
          kind={kind}
          conflicts={view.state.conflicts}
          choose={(side, path) => keeper?.choose(side, path)}
        />
      )}
    </>
  );
}
