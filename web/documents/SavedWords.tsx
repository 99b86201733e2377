import { format } from 'date-fns';
import type { KeepView } from './keeper';

/** Where a document is kept, in words that are true. */
export function SavedWords({ view }: { view: Pick<KeepView<unknown>, 'state' | 'kept'> }) {
  const { state, kept } = view;
  const here =
    kept === 'yes'
      ? 'kept in this browser'
      : kept === 'pending'
        ? 'being kept in this browser'
        : 'not kept: this browser’s store is full or closed';
  switch (state.kind) {
    case 'saved':
      // nothing of it is anywhere yet
      if (state.revision === 0 && state.at?.getTime() === 0) return <>new, nothing typed yet</>;
      return <>{state.at ? `saved ${format(state.at, 'HH:mm')}` : 'kept'}</>;
    case 'saving':
      return <>{kept === 'refused' ? here : 'saving'}</>;
    case 'held':
      return (
        <span className="text-heat">
          {state.rest
            ? `saved but for what is refused, which is ${here}`
            : `${here} until the refused figures are mended`}
        </span>
      );
    case 'offline':
      return <span className="text-heat">server away · {here}</span>;
    case 'failed':
      return (
        <span className="text-heat">
          not saved: {state.message} · {here}
        </span>
      );
    case 'conflict':
      return <span className="text-heat">changed in another window</span>;
  }
}
