import { LIDS, LOADED_DIES, LOAD_KINDS, SOURCES } from '@zugluft/core/runs/runDocument';
import type { RunDocument } from '../../api/runs';
import { FieldRow } from '../../kit/FieldRow';
import { PlainInput } from '../../kit/PlainInput';
import { NumberInput } from './NumberInput';
import { useMachineFile } from '../../documents/record/MachineFile';

type Change = (next: Partial<RunDocument>, what: string) => void;
const ON = { cpu: 'CPU alone', gpu: 'GPU alone', both: 'both dies', none: 'nothing' } as const;

/** The sheet of the bench: what the load was, how the machine was set, where it was heard. */
export function RunSheet({ run, change }: { run: RunDocument; change: Change }) {
  const { draft } = useMachineFile();
  const settings = (draft['settings'] as { id: string }[] | undefined) ?? [];
  const load = run.load ?? { kind: 'stress', on: 'both' };
  return (
    <section aria-label="sheet of the run">
      <h2 className="font-semibold">Sheet</h2>
      <FieldRow name="name">
        <PlainInput
          label="name"
          value={run.name ?? ''}
          max={120}
          onChange={(name) => change({ name }, 'name of the run')}
        />
      </FieldRow>
      <Choice
        name="load"
        value={load.kind}
        options={LOAD_KINDS.map((k) => [k, k])}
        choose={(kind) =>
          change({ load: { ...load, kind: kind as typeof load.kind } }, 'kind of load')
        }
      />
      <Choice
        name="on"
        value={load.on}
        options={LOADED_DIES.map((k) => [k, ON[k]])}
        choose={(on) => change({ load: { ...load, on: on as typeof load.on } }, 'what was loaded')}
      />
      <FieldRow name="program">
        <PlainInput
          label="program"
          value={load.name ?? ''}
          hint="benchmark or game"
          max={120}
          onChange={(name) => change({ load: { ...load, name } }, 'program of the load')}
        />
      </FieldRow>
      <FieldRow name="score">
        <NumberInput
          label="score"
          value={load.score ?? null}
          low={0}
          high={1e9}
          set={(score) => change({ load: { ...load, score } }, 'score')}
        />
      </FieldRow>
      <FieldRow name="frames" unit="/s">
        <NumberInput
          label="frames in a second"
          value={load.framesPerS ?? null}
          low={0}
          high={1e5}
          set={(framesPerS) => change({ load: { ...load, framesPerS } }, 'frame rate')}
        />
      </FieldRow>
      {settings.length > 0 && (
        <Choice
          name="setting"
          value={run.setting ?? settings[0]!.id}
          options={settings.map((s) => [s.id, s.id])}
          choose={(setting) => change({ setting }, 'setting')}
        />
      )}
      <Choice
        name="power from"
        value={run.source ?? 'mains'}
        options={SOURCES.map((k) => [k, k])}
        choose={(source) => change({ source: source as 'mains' }, 'power source')}
      />
      <Choice
        name="lid"
        value={run.lid ?? 'open'}
        options={LIDS.map((k) => [k, k])}
        choose={(lid) => change({ lid: lid as 'open' }, 'lid')}
      />
      <FieldRow name="room" unit="°C">
        <NumberInput
          label="room"
          value={run.room?.temperatureC ?? null}
          low={-20}
          high={60}
          set={(x) =>
            change(
              {
                room: {
                  ...run.room,
                  ...(x === null ? { temperatureC: undefined } : { temperatureC: x }),
                },
              },
              'room',
            )
          }
        />
      </FieldRow>
      <FieldRow name="background" unit="dB(A)">
        <NumberInput
          label="background"
          value={run.backgroundDbA ?? null}
          low={-20}
          high={120}
          set={(backgroundDbA) => change({ backgroundDbA }, 'background')}
        />
      </FieldRow>
      <FieldRow name="firmware">
        <PlainInput
          label="firmware"
          value={run.firmware ?? ''}
          max={60}
          onChange={(firmware) => change({ firmware }, 'firmware')}
        />
      </FieldRow>
    </section>
  );
}

function Choice({
  name,
  value,
  options,
  choose,
}: {
  name: string;
  value: string;
  options: readonly (readonly [string, string])[];
  choose: (value: string) => void;
}) {
  return (
    <FieldRow name={name}>
      <select
        aria-label={name}
        className="select select-xs bg-transparent border-transparent hover:border-rule w-auto pr-9 text-[0.95rem]"
        value={value}
        onChange={(e) => choose(e.currentTarget.value)}
      >
        {options.map(([v, words]) => (
          <option key={v} value={v}>
            {words}
          </option>
        ))}
      </select>
    </FieldRow>
  );
}
