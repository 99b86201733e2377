import { format } from 'date-fns';
import { useState } from 'react';
import { toast } from 'sonner';
import type { Better } from '@zugluft/core/compare/compareMachines';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { plural } from '@zugluft/core/record/plural';
import { CARD_SIZES, type CardSize } from '@zugluft/core/report/cardChart';
import { comparisonCard } from '@zugluft/core/report/comparisonCard';
import { chanceWords, neighbours } from './chanceWords';
import { version } from '../../../package.json';
import { bandAt, type Row } from './comparedFigures';
import { saveBlob } from './saveBlob';
import { shortNames } from './shortNames';

/** The ranking as a picture for an article. */
export function CardSave({
  rows,
  better,
  cap,
  draws,
}: {
  rows: readonly Row[];
  better: readonly Better[];
  cap: Cap;
  /** Of each machine. */
  draws: number;
}) {
  const [size, setSize] = useState<CardSize>('1200x675');
  const save = async (as: 'svg' | 'png') => {
    try {
      const files = await import('./cardFile');
      const card = cardOf(rows, better, cap, draws, size);
      const file = await (as === 'svg' ? files.svgOf(card) : files.pngOf(card));
      saveBlob(file, `comparison-${size}.${as}`);
    } catch (cause) {
      toast.error(`The card could not be made: ${(cause as Error).message}.`);
    }
  };
  return (
    <span className="inline-flex flex-wrap items-center gap-2">
      <select
        className="select select-sm w-auto pr-9"
        aria-label="size of the card"
        value={size}
        onChange={(e) => setSize(e.currentTarget.value as CardSize)}
      >
        {CARD_SIZES.map((s) => (
          <option key={s} value={s}>
            {s.replace('x', ' × ')}
          </option>
        ))}
      </select>
      <button type="button" className="btn btn-sm" onClick={() => void save('svg')}>
        Card, SVG
      </button>
      <button type="button" className="btn btn-sm" onClick={() => void save('png')}>
        Card, PNG
      </button>
    </span>
  );
}

/** The ranking at a cap, what is sure about its first two, and what the figures stand on. */
function cardOf(
  rows: readonly Row[],
  better: readonly Better[],
  cap: Cap,
  draws: number,
  size: CardSize,
) {
  const short = shortNames(rows.map((r) => r.name));
  const named = rows.map((r, i) => ({ ...r, name: short[i]! }));
  const shortOf = (name: string) => short[rows.findIndex((r) => r.name === name)] ?? name;
  const bars = named
    .flatMap((r) => {
      const watts = bandAt(r, cap);
      return watts ? [{ name: r.name, watts, isCalibrated: r.isCalibrated }] : [];
    })
    .sort((a, b) => b.watts.p50 - a.watts.p50);
  const [first] = neighbours(rows, better, cap);
  const calibrated = bars.filter((b) => b.isCalibrated).length;
  const foot = [
    `computed for ${plural(bars.length, 'machine')}`,
    calibrated > 0 ? `${calibrated} narrowed by runs (blue)` : 'from records alone',
    `${draws} draws each`,
    format(new Date(), 'yyyy-MM-dd'),
    `Zugluft ${version}`,
  ].join(' · ');
  return comparisonCard(
    bars,
    cap,
    first ? chanceWords({ ...first, a: shortOf(first.a), b: shortOf(first.b) }) : '',
    foot,
    size,
  );
}
