import { useState } from 'react';
import type { KeptCalibration } from '../../api/calibrations';
import type { KeptRun } from '../../api/runs';
import { keeperOf } from '../../documents/keepers';
import { useKeys } from '../../kit/useKeys';
import { Kbd } from '../../kit/Kbd';
import { runName } from '../../documents/runName';
import { USES, USE_WORDS } from './runWords';

/** Which runs a fit sees: each is used, held out or left out by one key. */
export function RunUses({
  runs,
  shown,
}: {
  runs: readonly KeptRun[];
  shown: KeptCalibration | null;
}) {
  const [at, setAt] = useState(0);
  const withLogs = runs.filter((r) => (r.run.logs?.length ?? 0) > 0);
  const here = Math.min(at, Math.max(0, withLogs.length - 1));
  const turn = async (run: KeptRun) => {
    const keeper = await keeperOf('run', run.id, {
      revision: run.revision,
      value: run.run,
      at: new Date(run.createdAt),
    });
    keeper.change(
      (now) => ({ ...now, use: USES[(USES.indexOf(now.use ?? 'fit') + 1) % USES.length]! }),
      'what the run is for',
    );
    await keeper.flush();
  };
  useKeys({
    ArrowDown: () => setAt(Math.min(here + 1, withLogs.length - 1)),
    ArrowUp: () => setAt(Math.max(0, here - 1)),
    v: () => {
      const run = withLogs[here];
      if (run) void turn(run);
    },
  });
  return (
    <div>
      <h2 className="font-semibold">Runs</h2>
      {withLogs.length === 0 && <p className="text-quiet text-[0.9rem]">No run has a log yet.</p>}
      <ol aria-label="runs for the fit">
        {withLogs.map((r, i) => {
          const was = shown?.runs.find((u) => u.id === r.id);
          const use = r.run.use ?? 'fit';
          return (
            <li
              key={r.id}
              aria-current={i === here || undefined}
              className={`border-b border-rule text-[0.95rem] grid grid-cols-[1.5rem_1fr_auto] items-baseline ${
                i === here ? 'bg-rule/30' : ''
              }`}
            >
              <span className="figure text-quiet">{runs.indexOf(r) + 1}</span>
              <span>
                {runName(r.run)}
                {was?.lacks && (
                  <span className="text-heat text-small block">not used: {was.lacks}</span>
                )}
              </span>
              <button
                type="button"
                className="cursor-pointer px-1 hover:text-ink text-quiet"
                onClick={() => {
                  setAt(i);
                  void turn(r);
                }}
              >
                {USE_WORDS[use]} {i === here && <Kbd>v</Kbd>}
              </button>
            </li>
          );
        })}
      </ol>
    </div>
  );
}
