import { useEffect, useRef, useState } from 'react';
import { readFigure } from '@zugluft/core/record/readFigure';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';
import type { LeastLevel } from '@zugluft/core/uncertainty/leastLevel';
import type { Splits } from '../../documents/answer/NoiseLadder';
import { levelWords } from '../../documents/answer/levelWords';
import { middleCap } from '../../documents/answer/caps';
import { shownW } from '@zugluft/core/case/answerWords';
import { quietWorker } from '../../documents/answer/workers/quietClient';
import { latestOnly } from '../../documents/answer/workers/latestOnly';
import { useMachineFile } from '../../documents/record/MachineFile';

const MAX_W = 2000;

/** The other way round: how quiet a machine can be at watts that are wanted, with its band. */
export function QuietFor({ splits }: { splits: Splits | null }) {
  const { live, provisional, caps } = useMachineFile();
  const { request } = live;
  const [typed, setTyped] = useState('');
  const [found, setFound] = useState<LeastLevel | null>(null);
  const middle = live.estimate?.caps.find((c) => c.cap === middleCap(caps))?.together;
  const usual = middle ? Math.round(shownW(middle) / 5) * 5 : undefined;
  const read = typed.trim() === '' ? undefined : readFigure(typed, 'W');
  const asked = typed.trim() === '' ? usual : typeof read === 'object' ? read.value : NaN;
  const wrong = typed.trim() !== '' && !(asked! > 0 && asked! <= MAX_W);
  const watts = wrong || !asked ? undefined : asked;
  const submit = useRef(latestOnly());
  useEffect(() => {
    // what is typed comes first
    if (!request || watts === undefined || provisional) return;
    let open = true;
    const need = splits?.carried(watts) ?? { cpuW: watts, gpuW: watts };
    const options = { draws: SHOWN_DRAWS, seed: SHOWN_SEED };
    submit.current(async () => {
      const level = await quietWorker().leastLevel(request, need, options);
      if (open) setFound(level);
    });
    return () => {
      open = false;
    };
  }, [request, watts, splits, provisional]);
  if (usual === undefined) return null;
  const tenths = (share: number) => `${Math.round(10 * share)} of 10`;
  return (
    <section aria-label="how quiet" className="border-t border-rule mt-2 pt-2 text-[0.9rem]">
      <label className="inline-flex items-baseline gap-1">
        <input
          className={`figure input input-xs w-14 text-right ${wrong ? 'border-heat text-heat' : ''}`}
          aria-label="watts wanted, W"
          aria-invalid={wrong || undefined}
          inputMode="decimal"
          autoComplete="off"
          maxLength={12}
          placeholder={String(usual)}
          value={typed}
          onChange={(e) => setTyped(e.currentTarget.value)}
        />
        <span className="unit">W</span>
      </label>{' '}
      {wrong ? (
        <span className="text-heat">watts above 0 and up to {MAX_W}</span>
      ) : found && watts !== undefined ? (
        <span data-testid="quiet-for">
          {found.reached < 0.5 ? (
            <>are out of reach in {tenths(1 - found.reached)} draws, however loud.</>
          ) : (
            <>
              need about <strong className="figure">{levelWords(found.p50)}</strong> (
              {levelWords(found.p05)} to {levelWords(found.p95)}).
            </>
          )}
        </span>
      ) : (
        <span className="text-quiet">computing</span>
      )}
    </section>
  );
}
