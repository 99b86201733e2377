import { useMemo } from 'react';
import { planWay } from '@zugluft/core/levers/planWay';
import type { WeighedLever } from '@zugluft/core/levers/rankLevers';
import { isObject } from '@zugluft/core/record/plainJson';
import { CAUTIONS } from '@zugluft/core/service/cautions';
import type { OpenUpLog } from '@zugluft/core/service/openUpLog';
import { fieldWords } from '../../documents/record/fieldWords';
import { pathWordsOf } from '../../documents/record/figureWords';
import { bandWords } from './leverWords';

/** Everything of one lever: what it changes in the record, what it brings, the way to it, its cautions. */
export function LeverDetails({
  weighed: { lever, gain },
  log,
}: {
  weighed: WeighedLever;
  log: OpenUpLog | null;
}) {
  const way = useMemo(() => planWay([lever], log), [lever, log]);
  const pathWords = pathWordsOf('record');
  return (
    <div className="text-[0.9rem] grid gap-y-1.5 max-w-prose">
      {lever.change.length > 0 && (
        <p>
          Changes{' '}
          {lever.change.map(({ path, to }, i) => (
            <span key={path}>
              {i > 0 && '; '}
              {path === 'setting' ? 'the setting' : pathWords(path)}{' '}
              {to === null ? 'left out' : isObject(to) ? 'as a new part' : `→ ${fieldWords(to)}`}
            </span>
          ))}
          .
        </p>
      )}
      {gain && (
        <p>
          {bandWords(gain.wattsGained)} W
          {lever.moves === 'cooling' && (
            <>
              ; at the watts of today {bandWords(gain.dbSaved)} dB quieter or, as loud,{' '}
              {bandWords(gain.kelvinSaved)} K cooler
            </>
          )}
          . Differences of the same machine, cause by cause, not of two bands.
        </p>
      )}
      {lever.goal !== null && way && way.steps.length > 0 && (
        <p>
          {way.steps.length} steps, {way.screws.length} screws
          {way.tools.length > 0 && `; tools: ${way.tools.join(', ')}`}
          {way.consumables.length > 0 && `; consumables: ${way.consumables.join(', ')}`}
          {way.seconds !== null && `; ${Math.round(way.seconds / 60)} min in, about as long back`}.
        </p>
      )}
      <p>
        {lever.reversible ? 'Can be taken back.' : 'Cannot be taken back.'}
        {lever.goal !== null && ` ${CAUTIONS.seal}`}
      </p>
      {lever.cautions.length > 0 && (
        <ul className="border-l-2 border-heat pl-2">
          {lever.cautions
            .filter((c) => c !== 'seal')
            .map((c) => (
              <li key={c}>{CAUTIONS[c]}</li>
            ))}
        </ul>
      )}
    </div>
  );
}
