import { heldBySetting } from '@zugluft/core/runs/heldBySetting';
import type { RunAnalysis, RunDocument } from '../../api/runs';
import { wattsText } from '@zugluft/core/case/answerWords';
import { clockWords, eventWords } from './runWords';

type Mean = { mean: number; plusMinus: number; upperBound?: boolean };

/** What the logs of a run say: what was sustained, against what was foretold, what happened. */
export function RunSays({ analysis, run }: { analysis: RunAnalysis; run: RunDocument }) {
  const last = analysis.steady[analysis.steady.length - 1];
  const mean = (is: string): Mean | null => {
    const own = last?.[is];
    return typeof own === 'object' ? own : null;
  };
  const cpu = mean('cpuPowerW');
  const gpu = mean('gpuPowerW');
  const level = mean('levelDbA');
  return (
    <section aria-label="what the logs say">
      <h2 className="font-semibold">Sustained</h2>
      {last && (
        <>
          <p className="figure text-2xl my-1" data-testid="run-sustained">
            {cpu && (
              <>
                {wattsText(cpu.mean)} <span className="unit">W CPU</span>{' '}
              </>
            )}
            {gpu && (
              <>
                {wattsText(gpu.mean)} <span className="unit">W GPU</span>
              </>
            )}
          </p>
          {level && (
            <p className="text-[0.9rem]">
              {level.upperBound ? 'at most ' : 'at '}
              <span className="figure">{level.mean.toFixed(1)}</span> ± {level.plusMinus.toFixed(1)}{' '}
              <span className="unit">dB(A)</span>
              {typeof run.backgroundDbA === 'number' &&
                `, background ${run.backgroundDbA} taken off`}
            </p>
          )}
          <p className="text-small text-quiet">
            steady from {clockWords(last.fromS)} to {clockWords(last.toS)}
            {last.chosenBy === 'person' ? ', chosen' : ''}
          </p>
        </>
      )}
      {!analysis.settled && (
        <p className="text-[0.9rem] text-heat" data-testid="run-why-not">
          Never settled: {analysis.whyNot}.
        </p>
      )}
      {Object.keys(analysis.timeConstantsS).length > 0 && (
        <p className="text-small text-quiet">
          {Object.entries(analysis.timeConstantsS)
            .map(
              ([is, times]) =>
                `${is === 'cpuC' ? 'CPU' : 'GPU'} follows its load within ${times
                  .map((t) => `${t < 10 ? t.toFixed(1) : t.toFixed(0)} s`)
                  .join(' and ')}`,
            )
            .join('; ')}
        </p>
      )}
      {analysis.against && (
        <AgainstBand against={analysis.against} held={heldBySetting(analysis.events)} />
      )}
      {analysis.events.length > 0 && (
        <>
          <h3 className="text-small font-semibold mt-3">What happened</h3>
          <ol className="text-[0.9rem]">
            {analysis.events.map((e) => (
              <li
                key={`${e.kind} ${e.part} ${e.atS}`}
                className="border-b border-rule py-0.5 grid grid-cols-[3rem_1fr]"
              >
                <span className="figure text-quiet">{clockWords(e.atS)}</span>
                <span>{eventWords(e)}</span>
              </li>
            ))}
          </ol>
        </>
      )}
      {analysis.log.problems.length > 0 && (
        <p className="text-small text-quiet mt-2">
          Row <span className="figure">{analysis.log.problems[0]!.row}</span>{' '}
          {analysis.log.problems[0]!.column}: {analysis.log.problems[0]!.message}
          {analysis.log.problems.length > 1 && ` and ${analysis.log.problems.length - 1} more`}.
        </p>
      )}
    </section>
  );
}

/** Measured watts as a mark on the band that was foretold. */
function AgainstBand({
  against,
  held,
}: {
  against: NonNullable<RunAnalysis['against']>;
  /** The setting held the watts, not the cooling. */
  held: boolean;
}) {
  const { p05, p50, p95, measuredW, cap } = against;
  // what the setting held says that the cooling carries at least so much
  const inBand = held ? measuredW <= p95 : against.inBand;
  const low = Math.min(p05, measuredW);
  const span = Math.max(p95, measuredW) - low || 1;
  const at = (x: number) => `${4 + (92 * (x - low)) / span}%`;
  const by = measuredW - p50;
  return (
    <div className="mt-3" data-testid="run-against">
      <p className="text-small text-quiet">
        The record foretells at {cap === 'full' ? 'full speed' : `${Number(cap).toFixed(1)} dB(A)`}
      </p>
      <div className="relative">
        <svg viewBox="0 0 100 16" className="w-full h-8" preserveAspectRatio="none" aria-hidden>
          <line x1="0" x2="100" y1="8" y2="8" className="stroke-rule" strokeWidth="0.6" />
          <rect
            x={4 + (92 * (p05 - low)) / span}
            width={(92 * (p95 - p05)) / span}
            y="4"
            height="8"
            className="fill-heat"
            opacity="0.25"
          />
          <line
            x1={4 + (92 * (p50 - low)) / span}
            x2={4 + (92 * (p50 - low)) / span}
            y1="2"
            y2="14"
            className="stroke-ink"
            strokeWidth="0.8"
          />
        </svg>
        <span
          className="absolute top-[11px] w-2.5 h-2.5 -ml-[5px] rotate-45 bg-ink"
          style={{ left: at(measuredW) }}
          aria-hidden
        />
      </div>
      <p className="relative h-4 figure text-small" aria-hidden>
        {[p05, p50, p95].map((x) => (
          <span key={x} className="absolute -translate-x-1/2" style={{ left: at(x) }}>
            {wattsText(x)}
          </span>
        ))}
      </p>
      <p className="text-[0.9rem] mt-1">
        <span className="figure">{measuredW.toFixed(1)}</span> <span className="unit">W</span>{' '}
        measured, {inBand ? 'inside its band' : 'outside its band'}, {Math.abs(by).toFixed(0)} W{' '}
        {by < 0 ? 'below' : 'above'} the middle of {wattsText(p05)} to {wattsText(p95)}
        {held && '; the setting held them, the cooling carries at least as much'}
      </p>
    </div>
  );
}
