import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { AHEAD_YEARS, type PaysAfter, type UpkeepPart } from '@zugluft/core/levers/upkeep';
import { readFigure } from '@zugluft/core/record/readFigure';
import { atCap } from '../../documents/answer/caps';
import { planWorker } from '../../documents/answer/workers/planClient';
import { useMachineFile } from '../../documents/record/MachineFile';
import { COMPUTED_HERE } from '../../documents/answer/computedHere';

const MAX_HOURS = 8760;

/** What dust and old interface material will take with use, and when cleaning and renewing pay. */
export function UpkeepPanel({ cap, noticedW }: { cap: Cap; noticedW: number }) {
  const { live } = useMachineFile();
  const [typed, setTyped] = useState('');
  const { request } = live;
  const figure = typed.trim() === '' ? null : readFigure(typed, 'h');
  const hours = figure === null ? undefined : typeof figure === 'object' ? figure.value : NaN;
  const wrong = hours !== undefined && !(hours >= 1 && hours <= MAX_HOURS);
  const hoursPerYear = wrong ? undefined : hours;
  const { data, error } = useQuery({
    queryKey: ['levers', 'upkeep', request, cap, noticedW, hoursPerYear ?? null],
    queryFn: () => planWorker().upkeep(request!, cap, { noticedW, hoursPerYear }),
    enabled: request !== null,
    placeholderData: (before) => before,
    ...COMPUTED_HERE,
    staleTime: Infinity,
  });
  return (
    <section aria-label="upkeep" className="mt-5 border-t border-rule pt-3">
      <h2 className="font-semibold">Upkeep</h2>
      <p className="flex flex-wrap gap-x-2 items-baseline">
        <label className="inline-flex items-baseline gap-1">
          used
          <input
            className={`figure input input-xs w-20 text-right ${wrong ? 'border-heat text-heat' : ''}`}
            aria-label="hours of use in a year"
            aria-invalid={wrong || undefined}
            inputMode="decimal"
            autoComplete="off"
            maxLength={12}
            placeholder={data ? String(data.hoursPerYear) : ''}
            value={typed}
            onChange={(e) => setTyped(e.currentTarget.value)}
          />
          <span className="unit">hours a year</span>
        </label>
        {wrong && <span className="text-heat">hours from 1 to {MAX_HOURS}</span>}
      </p>
      {error && (
        <p role="alert" className="text-heat">
          It could not be computed: {error.message}.
        </p>
      )}
      {!data && !error && <p className="text-quiet">Computing.</p>}
      {data && (
        <ul className="text-[0.95rem]">
          <Part name="dust" what="Cleaning" part={data.dust} lacks="no fins are recorded" />
          <Part
            name="paste"
            what="Renewing the interface material"
            part={data.paste}
            lacks="the dies are under different materials, or one that does not age"
          />
        </ul>
      )}
      <p className="text-small text-quiet">
        Pays: brings {noticedW} W {atCap(cap)}. How fast dust gathers differs from room to room;
        both rates are defaults of the laboratory, wide on purpose until{' '}
        <Link to="/learned" className="underline underline-offset-2">
          its own renewals
        </Link>{' '}
        narrow them.
      </p>
    </section>
  );
}

function Part({
  name,
  what,
  part,
  lacks,
}: {
  name: string;
  what: string;
  part: UpkeepPart | null;
  lacks: string;
}) {
  const then = part?.curve.find((c) => c.years === 5);
  return (
    <li data-testid={`pays-${name}`}>
      {part ? (
        <>
          {what} {paysWords(part.pays)}
          {then && (
            <span className="text-quiet">
              ; in five years it would bring <span className="figure">{then.gainW.toFixed(1)}</span>{' '}
              W
            </span>
          )}
          .
        </>
      ) : (
        <span className="text-quiet">
          {what}: {lacks}.
        </span>
      )}
    </li>
  );
}

/** “pays now”, “pays in about 2.1 years (0.8 to 5.3)”, “does not pay within 12 years”. */
export function paysWords({ p05, p50, p95 }: PaysAfter): string {
  if (p50 === null) {
    return p05 === null
      ? `does not pay within ${AHEAD_YEARS} years`
      : `does not pay within ${AHEAD_YEARS} years, at the soonest after ${yearText(p05)}`;
  }
  if (p50 === 0) return 'pays now';
  const late = p95 === null ? `more than ${AHEAD_YEARS}` : yearText(p95);
  return `pays in about ${yearText(p50)} years (${p05 === null ? '–' : yearText(p05)} to ${late})`;
}

const yearText = (years: number) => years.toFixed(years < 9.95 ? 1 : 0);
