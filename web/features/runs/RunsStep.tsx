import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { listRuns, makeRun, runKeys, type KeptRun } from '../../api/runs';
import { useCommands } from '../../documents/commands';
import { onArrived } from '../../documents/keepers';
import { useMachineFile } from '../../documents/record/MachineFile';
import { Kbd } from '../../kit/Kbd';
import { RunDesk } from './RunDesk';
import { runName, USE_WORDS } from './runWords';

/** Load runs of this machine: what was really sustained, and how it stands against the estimate. */
export function RunsStep() {
  const { machine, made, draft } = useMachineFile();
  const client = useQueryClient();
  const [chosen, setChosen] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { data: runs, error } = useQuery({
    queryKey: runKeys.of(machine.id),
    queryFn: ({ signal }) => listRuns(machine.id, signal),
    enabled: made,
  });
  useEffect(
    () =>
      onArrived((kind) => {
        if (kind === 'run') void client.invalidateQueries({ queryKey: runKeys.of(machine.id) });
      }),
    [client, machine.id],
  );
  const begin = async () => {
    const setting = (draft['settings'] as { id: string }[] | undefined)?.[0]?.id;
    try {
      const run = await makeRun(machine.id, {
        format: 'zugluft-run',
        formatVersion: 1,
        id: crypto.randomUUID(),
        startedAt: new Date().toISOString(),
        load: { kind: 'stress', on: 'both' },
        ...(setting ? { setting } : {}),
        source: 'mains',
        lid: 'open',
        use: 'fit',
      });
      await client.invalidateQueries({ queryKey: runKeys.of(machine.id) });
      setChosen(run.id);
      setProblem(null);
    } catch (cause) {
      setProblem((cause as Error).message);
    }
  };
  const list = runs ?? [];
  const open = list.find((r) => r.id === chosen) ?? list[list.length - 1] ?? null;
  const nextRun = () => {
    const at = list.findIndex((r) => r.id === open?.id);
    const next = list[(at + 1) % Math.max(1, list.length)];
    if (next) setChosen(next.id);
  };
  useCommands({ 'new-run': () => void begin(), 'next-run': nextRun });
  return (
    <div>
      <nav
        aria-label="runs"
        className="flex flex-wrap gap-x-4 gap-y-1 items-center pb-2 text-[0.95rem]"
      >
        {list.map((r, i) => (
          <RunTab
            key={r.id}
            run={r}
            number={i + 1}
            open={r.id === open?.id}
            choose={() => setChosen(r.id)}
          />
        ))}
        <button
          type="button"
          className="cursor-pointer text-quiet hover:text-ink"
          onClick={() => void begin()}
        >
          new run <Kbd>n</Kbd>
        </button>
      </nav>
      {(problem ?? error) && (
        <p role="alert" className="text-heat">
          {problem ?? error?.message}.
        </p>
      )}
      {!made && (
        <p className="text-quiet">Runs can be kept once the first figure of this machine is.</p>
      )}
      {made && runs && list.length === 0 && (
        <p className="text-quiet max-w-prose">
          No run yet. Begin one with <Kbd>n</Kbd>, load the machine, then drop the logs of the load
          and of the level meter here: they are cut, averaged and held against the estimate.
        </p>
      )}
      {open && <RunDesk key={open.id} machineId={machine.id} id={open.id} start={open} />}
    </div>
  );
}

function RunTab({
  run,
  number,
  open,
  choose,
}: {
  run: KeptRun;
  number: number;
  open: boolean;
  choose: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={open}
      className={`cursor-pointer hover:text-ink ${open ? 'text-ink font-semibold' : 'text-quiet'}`}
      onClick={choose}
    >
      <span className="figure">{number}</span> {runName(run.run)}{' '}
      <span className="text-small text-quiet font-normal">{USE_WORDS[run.run.use ?? 'fit']}</span>
    </button>
  );
}
