import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { wattsText } from '@zugluft/core/case/answerWords';
import { isHit, type RecordOfHits } from '@zugluft/core/opinion/hits';
import type { Felt as FeltSetting } from '@zugluft/core/service/labSettings';
import { guessKeys, listGuesses, type GuessPage } from '../../api/guesses';
import { atCap } from '../../documents/answer/caps';
import { Pages } from '../../kit/Pages';
import { ReadingHead } from '../../kit/ReadingHead';

const percent = (share: number) => `${Math.round(100 * share)} %`;

/** Whether reviewers are asked for a guess before a machine's answer is uncovered, and how well each of them guesses. */
export function Felt({
  value,
  ready,
  save,
}: {
  value: FeltSetting;
  ready: boolean;
  save: (value: FeltSetting) => void;
}) {
  const [page, setPage] = useState(1);
  const { data, error } = useQuery({
    queryKey: guessKeys.page(page),
    queryFn: ({ signal }) => listGuesses(page, signal),
    placeholderData: keepPreviousData,
    retry: false,
  });
  return (
    <section aria-label="guesses" className="mb-5">
      <h2 className="font-semibold mb-1">The reviewer’s own guess</h2>
      <label className="flex items-center gap-2 cursor-pointer w-fit py-1">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          disabled={!ready}
          checked={value.ask}
          onChange={(e) => save({ ask: e.currentTarget.checked })}
        />
        asked before the answer of a machine is uncovered
      </label>
      {error && <p className="text-quiet">Guesses could not be read: {error.message}.</p>}
      {data && data.total === 0 && <p className="text-quiet">Nobody has guessed yet.</p>}
      {data && data.total > 0 && (
        <>
          <table aria-label="how well each guesses" className="text-[0.95rem] mt-1">
            <ReadingHead
              titles={['who', 'guesses', 'inside the band', 'usually off', 'leans', 'over time']}
              wideOnly="over time"
            />
            <tbody>
              {data.people.map((p) => (
                <PersonRow key={p.by} {...p} />
              ))}
            </tbody>
          </table>
          <Latest data={data} page={page} turn={setPage} />
        </>
      )}
    </section>
  );
}

function PersonRow({
  by,
  guesses,
  answered,
  learned,
  inBand,
  offShare,
  leanShare,
  errors,
}: RecordOfHits) {
  return (
    <tr className="border-t border-rule align-baseline">
      <th scope="row" className="font-normal text-left pr-6 max-sm:pr-3 py-1 break-words max-w-60">
        {by}
      </th>
      <td className="figure pr-6 max-sm:pr-3">{guesses}</td>
      <td className="pr-6 max-sm:pr-3">
        {answered ? `${inBand} of ${answered}` : '–'}
        {answered > 0 && <span className="text-quiet">, {learned} of them on runs</span>}
      </td>
      <td className="figure pr-6 max-sm:pr-3">{offShare === null ? '–' : percent(offShare)}</td>
      <td className="pr-6 max-sm:pr-3">
        {leanShare === null
          ? '–'
          : Math.abs(leanShare) < 0.005
            ? 'to neither side'
            : `${percent(Math.abs(leanShare))} too ${leanShare > 0 ? 'high' : 'low'}`}
      </td>
      <td className="max-sm:hidden">
        <Errors errors={errors} />
      </td>
    </tr>
  );
}

const WIDTH = 120;
const HEIGHT = 20;
/** Errors beyond it are drawn at the edge, as a share. */
const EDGE = 0.6;

/** Errors from the oldest to the newest: a stroke up is too high, one down too low. */
function Errors({ errors }: { errors: readonly number[] }) {
  const step = WIDTH / Math.max(errors.length, 12);
  const mid = HEIGHT / 2;
  const words = errors.map((e) => `${e > 0 ? '+' : ''}${percent(e)}`).join(', ');
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={`errors, oldest first: ${words || 'none yet'}`}
    >
      <line x1="0" x2={WIDTH} y1={mid} y2={mid} stroke="var(--color-rule)" />
      {errors.map((e, i) => (
        <line
          key={i}
          x1={(i + 0.5) * step}
          x2={(i + 0.5) * step}
          y1={mid}
          y2={mid - (mid - 1) * Math.max(-1, Math.min(1, e / EDGE))}
          stroke="currentColor"
          strokeWidth="3"
        />
      ))}
    </svg>
  );
}

function Latest({
  data,
  page,
  turn,
}: {
  data: GuessPage;
  page: number;
  turn: (to: number) => void;
}) {
  const pages = Math.ceil(data.total / data.pageSize);
  return (
    <details className="mt-2">
      <summary className="cursor-pointer py-1">The latest guesses</summary>
      <ul>
        {data.items.map((g) => {
          const hit = isHit(g);
          return (
            <li key={`${g.machineId} ${g.id}`} className="border-b border-rule py-1">
              <Link
                to={`/machines/${g.machineId}/verdict`}
                className="hover:underline underline-offset-2 inline-block py-0.5"
              >
                {g.machine}
              </Link>
              <span className="text-quiet">
                , {g.at.slice(0, 10)}, {g.by}: <span className="figure">{wattsText(g.watts)}</span>{' '}
                W {atCap(g.cap)}
                {g.answer
                  ? `, ${g.learned ? 'runs say' : 'computed'} ${wattsText(g.answer.p05)} to ${wattsText(g.answer.p95)}`
                  : ', no answer yet'}
              </span>
              {hit === false && <strong className="text-heat font-semibold">, outside</strong>}
            </li>
          );
        })}
      </ul>
      <Pages page={page} pages={pages} turn={turn} />
    </details>
  );
}
