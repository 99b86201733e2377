import { BalancePanel } from '../BalancePanel';
import type { Bench } from './useBench';

/** All is back: what is left over or missing by group, apart from what was missing on arrival. */
export function EndView({ bench }: { bench: Bench }) {
  const { log } = bench;
  const latches = log.connectors.filter((c) => c.off && !c.on);
  const strips = log.strips.filter((s) => s.off && !s.on);
  return (
    <div className="space-y-4" data-testid="bench-end">
      <h1 className="text-4xl font-semibold">The balance</h1>
      <div className="[zoom:1.35]">
        <BalancePanel log={log} />
      </div>
      {latches.length > 0 && (
        <p role="alert" className="border-l-4 border-heat pl-3">
          Not plugged in again: {latches.map((c) => c.name).join(', ')}.
        </p>
      )}
      {strips.length > 0 && (
        <p role="alert" className="border-l-4 border-heat pl-3">
          Not back in its place: {strips.map((s) => s.name).join(', ')}.
        </p>
      )}
      <p className="text-quiet">Escape leaves the bench; v goes back to the opening.</p>
    </div>
  );
}
