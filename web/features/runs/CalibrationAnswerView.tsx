import type { KeptCalibration } from '../../api/calibrations';
import type { KeptRun } from '../../api/runs';
import { wattsText } from '@zugluft/core/case/answerWords';
import { figureWords } from '../../documents/record/figureWords';
import { runName } from '../../documents/runName';
import { capWords, readingWords, sig } from './runWords';

type Answer = KeptCalibration['answer'];

const UNIT: Readonly<Record<string, string>> = {
  junction: '°C',
  exhaust: '°C',
  fin: '°C',
  pipe: '°C',
  skin: '°C',
  level: 'dB(A)',
  wall: 'W',
  flow: 'L/s',
  freeDelivery: 'L/s',
};

/** What one version of a calibration found. */
export function CalibrationAnswerView({
  kept,
  runs,
}: {
  kept: KeptCalibration;
  runs: readonly KeptRun[];
}) {
  const { answer } = kept;
  const nameOf = (id: string) => {
    const at = runs.findIndex((r) => r.id === id);
    return at < 0 ? 'a run put aside' : `run ${at + 1}, ${runName(runs[at]!.run)}`;
  };
  return (
    <div className="grid lg:grid-cols-2 gap-x-6 gap-y-4 mt-4">
      <BeforeAfter answer={answer} version={kept.version} />
      <div>
        <Doubts answer={answer} nameOf={nameOf} />
        <HeldOut answer={answer} nameOf={nameOf} />
        <Residuals answer={answer} nameOf={nameOf} />
      </div>
      <Multipliers answer={answer} />
    </div>
  );
}

/** The ladder before and after: two bands a rung. */
function BeforeAfter({ answer, version }: { answer: Answer; version: number }) {
  const most = Math.max(10, ...answer.caps.flatMap((c) => [c.before.p95, c.after.p95]));
  const share = (w: number) => `${(100 * Math.max(0, w)) / most}%`;
  return (
    <section aria-label="before and after">
      <h3 className="font-semibold">Both dies, before and after</h3>
      <ol>
        {[...answer.caps].reverse().map(({ cap, before, after }) => (
          <li
            key={String(cap)}
            className="grid grid-cols-[5.8rem_1fr_auto] [&>*]:whitespace-nowrap gap-x-2 items-center py-1 text-[0.95rem]"
          >
            <span className="figure">{capWords(cap)}</span>
            <span className="relative h-5 block" aria-hidden>
              <Band
                from={share(before.p05)}
                to={share(before.p95)}
                look="top-0 h-2 border border-quiet"
              />
              <Band from={share(after.p05)} to={share(after.p95)} look="bottom-0 h-2 bg-heat/40" />
              <Middle at={share(after.p50)} look="bottom-0 h-2" />
            </span>
            <span className="figure text-right text-small">
              {wattsText(before.p50)} ± {half(before)} → <strong>{wattsText(after.p50)}</strong> ±{' '}
              {half(after)}
            </span>
          </li>
        ))}
      </ol>
      <p className="text-small text-quiet">
        Outlined before, filled after version {version}; half the 5–95 % band, W.
      </p>
    </section>
  );
}

/** Of the standard normal distribution: a prior's range is its 5–95 %. */
const Z95 = 1.645;

/** A range along a line, between two places of it. */
function Band({ from, to, look }: { from: string; to: string; look: string }) {
  return (
    <span className={`absolute ${look}`} style={{ left: from, width: `calc(${to} - ${from})` }} />
  );
}

function Middle({ at, look }: { at: string; look: string }) {
  return <span className={`absolute w-[2px] -ml-px bg-ink ${look}`} style={{ left: at }} />;
}

const half = ({ p05, p95 }: { p05: number; p95: number }) => wattsText((p95 - p05) / 2);

function Doubts({ answer, nameOf }: { answer: Answer; nameOf: (id: string) => string }) {
  const { contradictions, suspicions, unexplained, misfit, converged } = answer;
  return (
    <section aria-label="how well it holds">
      <h3 className="font-semibold">How well it holds</h3>
      <p className="text-[0.9rem]">
        {unexplained
          ? `Nothing explains the runs within their ±: every band was widened (misfit ${misfit.toFixed(1)}).`
          : `The runs are explained within their ± (misfit ${misfit.toFixed(1)}, about 1 is usual).`}
        {!converged && ' The search ended at its bound of steps.'}
      </p>
      <ul className="text-[0.9rem]">
        {contradictions.map((c) => (
          <li key={`${c.run} ${c.kind} ${c.part}`} className="text-heat">
            {c.kind === null
              ? `${nameOf(c.run)} contradicts the others`
              : `${readingWords(c.kind, c.part ?? '')} in ${nameOf(c.run)} contradicts the rest`}
            , {Math.round(10 * c.chance)} of 10; it does not drag them.
          </li>
        ))}
        {suspicions.map((s) => (
          <li key={s.text}>
            Perhaps {s.text}
            {s.run ? ` (${nameOf(s.run)})` : ''}.
          </li>
        ))}
      </ul>
    </section>
  );
}

function HeldOut({ answer, nameOf }: { answer: Answer; nameOf: (id: string) => string }) {
  const rows = answer.heldOut.filter((r) => r.kind !== 'held');
  if (rows.length === 0) return null;
  return (
    <section aria-label="held out" className="mt-3">
      <h3 className="font-semibold">Held out: foretold without having seen it</h3>
      <ul className="text-[0.9rem]">
        {rows.map((r) => (
          <li
            key={`${r.run} ${r.kind} ${r.part}`}
            className="border-b border-rule py-0.5 grid grid-cols-[1fr_auto] gap-x-2"
          >
            <span>
              {readingWords(r.kind, r.part)} <span className="text-quiet">{nameOf(r.run)}</span>
            </span>
            <span className="text-right">
              <span className="figure">
                {r.predicted.low.toFixed(1)} to {r.predicted.high.toFixed(1)}
              </span>{' '}
              <span className="unit">{UNIT[r.kind]}</span>, read{' '}
              <span className="figure">{r.value.toFixed(1)}</span>,{' '}
              <span className={r.inside ? '' : 'text-heat font-semibold'}>
                {r.inside ? 'inside' : 'outside'}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Residuals({ answer, nameOf }: { answer: Answer; nameOf: (id: string) => string }) {
  const rows = answer.residuals.filter((r) => !r.atMost);
  return (
    <details className="mt-3">
      <summary className="cursor-pointer text-[0.9rem] text-quiet">
        what was read against the fit, {rows.length} readings
      </summary>
      <ul className="text-[0.9rem]">
        {rows.map((r) => (
          <li
            key={`${r.run} ${r.kind} ${r.part}`}
            className="border-b border-rule py-0.5 grid grid-cols-[1fr_auto] gap-x-2"
          >
            <span>
              {readingWords(r.kind, r.part)} <span className="text-quiet">{nameOf(r.run)}</span>
            </span>
            <span className="figure">
              {r.value.toFixed(1)} ± {r.plusMinus.toFixed(1)}, fit {r.predicted.toFixed(1)}
            </span>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** Each multiplier in its own prior: where it was, where it is, and whether the runs told it. */
function Multipliers({ answer }: { answer: Answer }) {
  const rows = [...answer.multipliers].sort((a, b) => a.deviation - b.deviation);
  const place = (z: number) => `${50 + 50 * Math.max(-1, Math.min(1, z / 3))}%`;
  return (
    <section aria-label="multipliers" className="lg:col-span-2">
      <h3 className="font-semibold">What the runs told of the machine</h3>
      <table className="w-full text-[0.9rem]">
        <thead>
          <tr className="text-left text-small text-quiet">
            <th className="font-normal">figure</th>
            <th className="font-normal text-right">before</th>
            <th className="font-normal text-right">after, 5–95 %</th>
            <th className="font-normal w-[28%] pl-3">in what was thought possible</th>
            <th className="font-normal pl-3" />
          </tr>
        </thead>
        <tbody>
          {rows.map((m) => (
            <tr key={m.name} className="border-t border-rule">
              <td className="py-0.5">{figureWords(m.name)}</td>
              <td className="text-right figure">{sig(m.prior)}</td>
              <td className="text-right figure">
                {sig(m.value)} ({sig(m.low)} to {sig(m.high)})
              </td>
              <td className="pl-3">
                <span className="relative block h-3" aria-hidden>
                  <Band from={place(-Z95)} to={place(Z95)} look="inset-y-0 border border-rule" />
                  <Band from={place(m.zLow)} to={place(m.zHigh)} look="inset-y-[3px] bg-heat/40" />
                  <Middle at={place(m.z)} look="inset-y-0" />
                </span>
              </td>
              <td className="pl-3 whitespace-nowrap">
                {Math.abs(m.z) > 2 ? (
                  <span className="text-heat">far from what is usual</span>
                ) : m.determined ? (
                  'told'
                ) : (
                  <span className="text-quiet">still open</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {answer.directions.length > 0 && (
        <p className="text-small text-quiet mt-1">
          Told only together:{' '}
          {answer.directions
            .slice(0, 3)
            .map((d) =>
              d.parts
                .slice(0, 3)
                .map((p) => `${p.weight < 0 ? 'against ' : ''}${figureWords(p.name)}`)
                .join(' with '),
            )
            .join('; ')}
          .
        </p>
      )}
    </section>
  );
}
