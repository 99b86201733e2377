import { runZipUrl, type KeptRun, type RunDocument } from '../../api/runs';
import type { Keeper } from '../../documents/keeper';
import { Kbd } from '../../kit/Kbd';
import { RemoveButton } from '../../kit/RemoveButton';
import { RunKeeping } from './RunKeeping';
import type { Sending } from './useRunLogs';
import { USES, USE_WORDS } from './runWords';

/** Above a run's chart: its logs, what can be done with it, where it is kept. */
export function RunBar({
  kept,
  keeper,
  run,
  sending,
  giveUp,
  pick,
  looksIn,
  lookIn,
  nextUse,
  under,
  simulation,
  removeLog,
}: {
  kept: KeptRun;
  keeper: Keeper<RunDocument>;
  run: RunDocument;
  /** A log that is being read. */
  sending: Sending | null;
  giveUp: () => void;
  pick: () => void;
  looksIn: boolean;
  lookIn: () => void;
  nextUse: () => void;
  /** Null where there is no other run to lay under this one. */
  under: { otherName: string | null; nextOther: () => void } | null;
  /** Null where nothing is drawn. */
  simulation: { simulated: boolean; toggleSimulation: () => void } | null;
  removeLog: (id: string) => void;
}) {
  const logs = run.logs ?? [];
  const use = run.use ?? 'fit';
  const button = 'cursor-pointer hover:text-ink';
  return (
    <div className="text-small text-quiet flex flex-wrap gap-x-4 gap-y-1 items-baseline">
      <span className="flex flex-wrap gap-x-2 items-center">
        {logs.length === 0 && 'no log yet'}
        {logs.map((l) => (
          <span key={l.id} className="flex items-center">
            {l.file}
            <RemoveButton what={l.file} remove={() => removeLog(l.id)} />
          </span>
        ))}
        {sending && (
          <span role="status" data-testid="log-sending">
            {sending.share === null || sending.share >= 1
              ? `reading ${sending.name}`
              : `${sending.name}, ${(100 * sending.share).toFixed(0)} % sent`}{' '}
            <button type="button" className="underline cursor-pointer" onClick={giveUp}>
              cancel
            </button>
          </span>
        )}
      </span>
      <button type="button" className={button} onClick={pick}>
        add logs <Kbd>a</Kbd>
      </button>
      <button type="button" className={button} aria-pressed={looksIn} onClick={lookIn}>
        inbox <Kbd>j</Kbd>
      </button>
      <button type="button" className={button} onClick={nextUse}>
        <span className="text-ink">{USE_WORDS[use]}</span>, then{' '}
        {USE_WORDS[USES[(USES.indexOf(use) + 1) % USES.length]!]} <Kbd>v</Kbd>
      </button>
      {under && (
        <button type="button" className={button} onClick={under.nextOther}>
          {under.otherName ? `under it: ${under.otherName}` : 'another run under it'} <Kbd>x</Kbd>
        </button>
      )}
      {simulation && (
        <button
          type="button"
          className={button}
          aria-pressed={simulation.simulated}
          onClick={simulation.toggleSimulation}
        >
          {simulation.simulated ? 'simulated: dotted' : 'simulation'} <Kbd>s</Kbd>
        </button>
      )}
      {logs.length > 0 && (
        <a className="hover:text-ink" href={runZipUrl(kept.machineId, kept.id)} download>
          save as zip
        </a>
      )}
      <RunKeeping kept={kept} keeper={keeper} />
    </div>
  );
}
