import { useId, useState } from 'react';
import { confirmFigure, standsIn } from '@zugluft/core/family/markAssumed';
import {
  finAreaCm2,
  finsOfPitch,
  flattenedWidth,
  pitchOfFins,
  roundDiameter,
  sweptAreaCm2,
  tipSpeedMs,
} from '@zugluft/core/counting/countingAids';
import { dayAsYear, pasteAge } from '@zugluft/core/counting/pasteAge';
import { pipeSection, type WickKind } from '@zugluft/core/pipes/pipeSection';
import { figureValue, type Figure } from '@zugluft/core/record/figure';
import { readFigure } from '@zugluft/core/record/readFigure';
import { shownUnit, toShown } from '@zugluft/core/record/units';
import { getAt, setAt, type Part, type PartList } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { useUnits } from '../../kit/units';

/** The number in a field of a part, where one stands there. */
function numberOf(part: Part, field: string): number | undefined {
  const figure = getAt(part, field.split('.')) as Figure | undefined;
  const value = figure === undefined || figure === null ? undefined : figureValue(figure);
  return typeof value === 'number' && Number.isFinite(value) ? value : undefined;
}

/** What used to be counted by hand for the chosen part, worked out as its figures are typed; and ways to count faster. */
export function PartAids({ list, index, part }: { list: PartList; index: number; part: Part }) {
  const { change } = useMachineFile();
  const n = (field: string) => numberOf(part, field);
  const write = (field: string, value: unknown) =>
    change((d) => setAt(d, [list, index, ...field.split('.')], value));
  const assumed = Object.entries(part).filter(([, x]) => standsIn(x)).length;
  return (
    <section
      aria-label={`counting aids for ${part.id}`}
      className="flex flex-wrap items-start gap-x-8 gap-y-2 px-1.5 py-2 border-b border-rule text-[0.9rem]"
    >
      {list === 'finStacks' && <FinAids n={n} write={write} />}
      {list === 'heatPipes' && <PipeAids n={n} write={write} wick={wickOf(part)} />}
      {list === 'fans' && <FanAids n={n} />}
      {list === 'dies' && <AgeAid write={(x) => write('interface.ageYears', x)} />}
      {assumed > 0 && (
        <button
          type="button"
          className="btn btn-xs"
          onClick={() =>
            change((d) => {
              const now = getAt(d, [list, index]) as Part;
              const confirmed = Object.fromEntries(
                Object.entries(now).map(([key, x]) => [
                  key,
                  standsIn(x) ? confirmFigure(x as never) : x,
                ]),
              );
              return setAt(d, [list, index], confirmed);
            })
          }
        >
          Confirm {assumed} {assumed === 1 ? 'figure' : 'figures'} that{' '}
          {assumed === 1 ? 'stands' : 'stand'} in as measured here
        </button>
      )}
    </section>
  );
}

type Read = (field: string) => number | undefined;
type Write = (field: string, value: unknown) => void;

function Aid({
  name,
  value,
  unit,
  digits,
}: {
  name: string;
  value: number;
  unit: string;
  digits: number;
}) {
  const { units } = useUnits();
  return (
    <span>
      <span className="text-quiet">{name}</span>{' '}
      <span className="figure">{toShown(value, unit, units).toFixed(digits)}</span>{' '}
      <span className="unit">{shownUnit(unit, units)}</span>
    </span>
  );
}

function FinAids({ n, write }: { n: Read; write: Write }) {
  const { units } = useUnits();
  const [width, height, depth] = [n('widthMm'), n('heightMm'), n('depthMm')];
  const [count, thickness] = [n('finCount'), n('finThicknessMm') ?? 0.15];
  const pitch = width && count && count > 1 ? pitchOfFins(width, count, thickness) : undefined;
  return (
    <>
      {width !== undefined && (
        <SmallForm
          label="count from pitch"
          hint={`pitch, ${shownUnit('mm', units)}`}
          read={(text) => {
            const read = readFigure(text, 'mm', units);
            if (typeof read !== 'object') return 'a pitch such as 1.1';
            try {
              const fins = finsOfPitch(width, read.value, thickness);
              const write1 = () =>
                write('finCount', { value: fins, plusMinus: 1, origin: 'estimated' });
              return { words: `${fins} fins`, take: write1 };
            } catch (cause) {
              return (cause as Error).message;
            }
          }}
        />
      )}
      {pitch !== undefined && <Aid name="pitch" value={pitch} unit="mm" digits={2} />}
      {pitch !== undefined && <Aid name="gap" value={pitch - thickness} unit="mm" digits={2} />}
      {height && depth && count && (
        <Aid name="fin area" value={finAreaCm2(height, depth, count)} unit="cm²" digits={0} />
      )}
    </>
  );
}

const WICKS: readonly WickKind[] = ['sintered', 'grooved', 'mesh'];

/** What lies inside a pipe; sintered where nobody has said. */
function wickOf(part: Part): WickKind {
  return WICKS.find((k) => k === part['wick']) ?? 'sintered';
}

function PipeAids({ n, write, wick }: { n: Read; write: Write; wick: WickKind }) {
  const [diameter, pressed] = [n('diameterMm'), n('flattenedMm')];
  const measured = n('flattenedWidthMm');
  if (pressed === undefined || (diameter === undefined && measured === undefined)) return null;
  if (diameter === undefined) {
    const round = roundDiameter(measured!, pressed);
    return (
      <>
        <Aid name="was round with" value={round} unit="mm" digits={1} />
        <button
          type="button"
          className="btn btn-xs"
          onClick={() =>
            write('diameterMm', { value: Number(round.toFixed(1)), origin: 'estimated' })
          }
        >
          Take it
        </button>
      </>
    );
  }
  if (pressed > diameter) return null;
  const width = flattenedWidth(diameter, pressed);
  const section = pipeSection(diameter / 1000, pressed / 1000, undefined, wick, 1, 1);
  return (
    <>
      <Aid name="flattened width from these" value={width} unit="mm" digits={1} />
      {measured !== undefined && (
        <Aid name="recorded width differs by" value={measured - width} unit="mm" digits={1} />
      )}
      <Aid name="open section of one" value={section.vaporAreaM2 * 1e6} unit="mm²" digits={1} />
    </>
  );
}

function FanAids({ n }: { n: Read }) {
  const [diameter, blade, rpm] = [n('impellerDiameterMm'), n('bladeHeightMm'), n('maxRpm')];
  return (
    <>
      {diameter && blade && (
        <Aid name="swept area" value={sweptAreaCm2(diameter, blade)} unit="cm²" digits={1} />
      )}
      {diameter && rpm && (
        <Aid name="tips at full speed" value={tipSpeedMs(diameter, rpm)} unit="m/s" digits={1} />
      )}
    </>
  );
}

function AgeAid({ write }: { write: (x: unknown) => void }) {
  return (
    <SmallForm
      label="age of the interface from a date code or the product’s year"
      hint="2023-W14"
      read={(text) => {
        const age = pasteAge(text, dayAsYear(new Date().toISOString().slice(0, 10)));
        if (!age) return 'a date code such as 2023-W14, 2023-05 or 2314, or a year';
        return {
          words: `${age.years} ± ${age.plusMinus} years`,
          take: () =>
            write({
              value: age.years,
              plusMinus: age.plusMinus,
              origin: 'estimated',
              note: `from “${text.trim().slice(0, 20)}”`,
            }),
        };
      }}
    />
  );
}

/** A small field whose answer shows at once and is taken over with Enter. */
function SmallForm({
  label,
  hint,
  read,
}: {
  label: string;
  hint: string;
  read: (text: string) => string | { words: string; take: () => void };
}) {
  const [text, setText] = useState('');
  const id = useId();
  const found = text.trim() === '' ? null : read(text);
  const error = typeof found === 'string' ? found : undefined;
  return (
    <form
      className="flex items-baseline gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (found && typeof found !== 'string') {
          found.take();
          setText('');
        }
      }}
    >
      <label htmlFor={id} className="text-quiet">
        {label}
      </label>
      <input
        id={id}
        className={`figure input input-xs w-36 ${error ? 'border-heat' : ''}`}
        placeholder={hint}
        maxLength={40}
        autoComplete="off"
        aria-invalid={error ? true : undefined}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      {error && <span className="text-heat text-small">{error}</span>}
      {found && typeof found !== 'string' && (
        <>
          <span className="figure text-air">= {found.words}</span>
          <button type="submit" className="btn btn-xs">
            Take it
          </button>
        </>
      )}
    </form>
  );
}
