import { useMachineFile } from '../../../documents/record/MachineFile';
import { machineName } from '../../../documents/record/machineName';
import { Kbd } from '../../../kit/Kbd';
import { LogSavingWords } from '../LogStatus';
import type { Bench } from './useBench';

/** Which machine lies there, where it is kept, and the ways out. */
export function BenchHeader({
  bench,
  turn,
  leave,
}: {
  bench: Bench;
  turn: () => void;
  leave: () => void;
}) {
  const { name, variant } = machineName(useMachineFile().draft);
  const { side } = bench;
  return (
    <header className="flex flex-wrap items-center gap-x-5 gap-y-1 px-4 py-2 border-b border-rule text-base">
      <span className="font-semibold">{[name, variant].filter(Boolean).join(', ')}</span>
      <span className="text-quiet">{side === 'open' ? 'opening' : 'way back'}</span>
      <span className="grow" />
      <LogSavingWords />
      <button
        type="button"
        className="cursor-pointer text-quiet hover:text-ink disabled:opacity-50"
        disabled={!bench.canUndo}
        onClick={bench.undo}
      >
        undo <Kbd>Backspace</Kbd>
      </button>
      <button type="button" className="cursor-pointer text-quiet hover:text-ink" onClick={turn}>
        {side === 'open' ? 'way back' : 'opening'} <Kbd>v</Kbd>
      </button>
      <button type="button" className="cursor-pointer text-quiet hover:text-ink" onClick={leave}>
        leave <Kbd>Esc</Kbd>
      </button>
    </header>
  );
}
