import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { foretellRun, listRuns, makeRun, runKeys, sendRun, type KeptRun } from '../../api/runs';
import { useCommands } from '../../documents/commands';
import { onArrived } from '../../documents/keepers';
import { useMachineFile } from '../../documents/record/MachineFile';
import { Kbd } from '../../kit/Kbd';
import { CalibrationView } from './CalibrationView';
import { PlanView } from './PlanView';
import { LiveMeter } from './LiveMeter';
import { RunDesk } from './RunDesk';
import { SweepPanel } from './SweepPanel';
import { runName } from '../../documents/runName';
import { capWords, USE_WORDS } from './runWords';

/** Load runs of this machine: what was really sustained, how it stands against the estimate, what it teaches. */
export function RunsStep() {
  const { machine, made, draft, settingId } = useMachineFile();
  const client = useQueryClient();
  const [params, setParams] = useSearchParams();
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const beginning = useRef(false);
  const zips = useRef<HTMLInputElement>(null);
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
  const view = params.get('view');
  const chosen = params.get('run');
  const choose = (run: string) => setParams({ run }, { replace: true });
  const look = (next: 'plan' | 'calibration' | 'sweep' | 'meter') =>
    setParams(view === next ? {} : { view: next }, { replace: true });

  /** Makes a run; one that is planned is foretold at once. */
  const begin = async (on: 'cpu' | 'gpu' | 'both' | 'none', cap: Cap | null) => {
    const first = (draft['settings'] as { id: string }[] | undefined)?.[0]?.id;
    const setting = settingId ?? first;
    // a second click while the first is on its way would make a second run
    if (beginning.current) return;
    beginning.current = true;
    setBusy(true);
    setProblem(null);
    try {
      const run = await makeRun(machine.id, {
        format: 'zugluft-run',
        formatVersion: 1,
        id: crypto.randomUUID(),
        ...(cap === null ? { startedAt: new Date().toISOString() } : { fanMode: capWords(cap) }),
        load: { kind: on === 'none' ? 'idle' : 'stress', on },
        ...(setting ? { setting } : {}),
        source: 'mains',
        lid: 'open',
        use: 'fit',
      });
      if (cap !== null) await foretellRun(machine.id, run.id, cap);
      await client.invalidateQueries({ queryKey: runKeys.of(machine.id) });
      choose(run.id);
    } catch (cause) {
      setProblem((cause as Error).message);
      await client.invalidateQueries({ queryKey: runKeys.of(machine.id) });
    } finally {
      beginning.current = false;
      setBusy(false);
    }
  };
  const list = runs ?? [];
  const open = view ? null : (list.find((r) => r.id === chosen) ?? list[list.length - 1] ?? null);
  const nextRun = () => {
    const at = list.findIndex((r) => r.id === open?.id);
    const next = list[(at + 1) % Math.max(1, list.length)];
    if (next) choose(next.id);
  };
  useCommands({
    'new-run': () => void begin('both', null),
    'next-run': nextRun,
    'run-plan': () => look('plan'),
    calibration: () => look('calibration'),
    'fan-sweep': () => look('sweep'),
    'live-meter': () => look('meter'),
    'bring-run': () => zips.current?.click(),
  });
  const bringRuns = async (files: readonly File[]) => {
    setProblem(null);
    try {
      let last: KeptRun | null = null;
      for (const file of files) last = await sendRun(machine.id, file);
      await client.invalidateQueries({ queryKey: runKeys.of(machine.id) });
      if (last) choose(last.id);
    } catch (cause) {
      setProblem((cause as Error).message);
    }
  };
  const button = (pressed: boolean) =>
    `cursor-pointer hover:text-ink ${pressed ? 'text-ink font-semibold' : 'text-quiet'}`;
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
            choose={() => choose(r.id)}
          />
        ))}
        <button type="button" className={button(false)} onClick={() => void begin('both', null)}>
          {busy ? 'beginning a run' : 'new run'} <Kbd>n</Kbd>
        </button>
        <button
          type="button"
          aria-pressed={view === 'plan'}
          className={button(view === 'plan')}
          onClick={() => look('plan')}
        >
          plan <Kbd>r</Kbd>
        </button>
        <button
          type="button"
          aria-pressed={view === 'calibration'}
          className={button(view === 'calibration')}
          onClick={() => look('calibration')}
        >
          calibration <Kbd>c</Kbd>
        </button>
        <button
          type="button"
          aria-pressed={view === 'sweep'}
          className={button(view === 'sweep')}
          onClick={() => look('sweep')}
        >
          fan sweep <Kbd>1</Kbd>
        </button>
        <button
          type="button"
          aria-pressed={view === 'meter'}
          className={button(view === 'meter')}
          onClick={() => look('meter')}
        >
          live meter <Kbd>3</Kbd>
        </button>
        {made && (
          <button type="button" className={button(false)} onClick={() => zips.current?.click()}>
            bring a run in
          </button>
        )}
        <input
          ref={zips}
          type="file"
          multiple
          accept=".zip,.json,application/zip"
          className="sr-only"
          aria-label="runs as zips"
          onChange={(e) => {
            void bringRuns([...(e.currentTarget.files ?? [])]);
            e.currentTarget.value = '';
          }}
        />
      </nav>
      {(problem ?? error) && (
        <p role="alert" className="text-heat">
          {problem ?? error?.message}.
        </p>
      )}
      {!made && (
        <p className="text-quiet">Runs can be kept once the first figure of this machine is.</p>
      )}
      {made && runs && list.length === 0 && !view && (
        <p className="text-quiet max-w-prose">
          No run yet. See with <Kbd>r</Kbd> which one would teach most and foretell it, or begin one
          with <Kbd>n</Kbd>; load the machine, then drop the logs of the load and of the level meter
          here: they are cut, averaged and held against the estimate.
        </p>
      )}
      {made && view === 'plan' && <PlanView runs={list} begin={begin} />}
      {made && view === 'calibration' && <CalibrationView runs={list} />}
      {made && view === 'sweep' && <SweepPanel />}
      {view === 'meter' && <LiveMeter run={list[list.length - 1] ?? null} />}
      {open && <RunDesk key={open.id} machineId={machine.id} start={open} others={list} />}
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
  const planned = (run.run.logs?.length ?? 0) === 0;
  return (
    <button
      type="button"
      aria-pressed={open}
      className={`cursor-pointer hover:text-ink ${open ? 'text-ink font-semibold' : 'text-quiet'}`}
      onClick={choose}
    >
      <span className="figure">{number}</span> {runName(run.run)}{' '}
      <span className="text-small text-quiet font-normal">
        {planned ? 'planned' : USE_WORDS[run.run.use ?? 'fit']}
      </span>
    </button>
  );
}
