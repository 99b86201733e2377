import { plural } from '@zugluft/core/record/plural';
import { useQueries } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { capsOf, MAX_CAP_DBA, MIN_CAP_DBA } from '@zugluft/core/case/laboratory';
import {
  compareRecords,
  MAX_BESIDE,
  MAX_COMPARED,
  type ComparedField,
} from '@zugluft/core/library/compared';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { machineKeys, readMachine, type Machine } from '../../api/machines';
import { middleCap } from '../../documents/answer/caps';
import { NoiseLadder } from '../../documents/answer/NoiseLadder';
import type { Draft } from '../../documents/record/draft';
import { LIBRARY } from '../../documents/places';
import { useLaboratory } from '../../documents/useLaboratory';
import { machineName } from '../../documents/record/machineName';
import { valueWordsOf } from '../../documents/record/fieldWords';
import { pathWordsOf } from '../../documents/record/figureWords';
import { splitsOf } from '../../documents/answer/splits';
import { PageFrame } from '../../kit/PageFrame';
import { useSetAddress } from '../../kit/useSetAddress';
import { Figures } from './Figures';
import { useBandedAnswers, type BandedAnswer } from './useBandedAnswers';

const SHOWN = 300;
const nameOf = pathWordsOf('record');

/** Several machines' files side by side: the answers above, then every field in which they differ. */
export function ComparePage() {
  const ids = [...new Set((useParams()['*'] ?? '').split('/').filter(Boolean))].slice(
    0,
    MAX_COMPARED,
  );
  const lab = useLaboratory();
  const levels = useMemo(() => capsOf(lab).filter((c) => typeof c === 'number'), [lab]);
  const [params] = useSearchParams();
  const setAddress = useSetAddress();
  const cap = capIn(params.get('at')) ?? middleCap(levels);
  const read = useQueries({
    queries: ids.map((id) => ({
      queryKey: [...machineKeys.one(id), 'compared'],
      queryFn: () => readMachine(id),
      gcTime: 0,
    })),
  });
  const error = read.find((r) => r.error)?.error;
  const there = read.every((r) => r.data) ? read.map((r) => r.data!) : null;
  return (
    <PageFrame crumbs={['Side by side']}>
      <main className="p-4 max-w-[92rem] mx-auto">
        <h1 className="text-lg font-semibold mb-3">Side by side</h1>
        {ids.length < 2 && (
          <p>
            Choose two machines or more, at most {MAX_COMPARED}, in the{' '}
            <Link to={LIBRARY} className="underline underline-offset-2">
              library
            </Link>{' '}
            and compare them there.
          </p>
        )}
        {error && (
          <p className="text-heat">
            {error.message}.{' '}
            <Link to={LIBRARY} className="underline">
              Back to the library
            </Link>
          </p>
        )}
        {there && ids.length >= 2 && (
          <>
            <Figures
              machines={there}
              lab={lab}
              levels={levels}
              cap={cap}
              choose={(level) => setAddress('at', level)}
            />
            {ids.length <= MAX_BESIDE ? (
              <Compared machines={there} />
            ) : (
              <p className="text-quiet">
                With at most {MAX_BESIDE} machines every field in which they differ stands here too.
              </p>
            )}
          </>
        )}
        {!there && !error && ids.length >= 2 && (
          <p role="status" className="text-quiet">
            Reading {read.filter((r) => r.data).length} of {ids.length} machines.
          </p>
        )}
      </main>
    </PageFrame>
  );
}

/** A level of the address; null where there is none that can be. */
function capIn(text: string | null): number | null {
  const level = text === null ? NaN : Number(text);
  return level >= MIN_CAP_DBA && level <= MAX_CAP_DBA ? level : null;
}

function Compared({ machines }: { machines: readonly Machine[] }) {
  const lab = useLaboratory();
  // by the machines themselves: the list is made anew each time
  const key = machines.map((m) => `${m.id} ${m.revision}`).join();
  const caps = useBandedAnswers(machines, lab);
  const rows = useMemo(
    () => compareRecords(machines.map((m) => m.record)),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [key],
  );
  const [filter, setFilter] = useState('');
  const wanted = filter.trim().toLowerCase();
  const shown = wanted
    ? rows.filter((r) => `${r.path} ${nameOf(r.path)}`.toLowerCase().includes(wanted))
    : rows;
  const atLeastW = Math.max(10, ...caps.flatMap((c) => (c ?? []).map((x) => x.together.p95 ?? 0)));
  return (
    <>
      <div className="grid grid-cols-[repeat(auto-fit,minmax(18rem,1fr))] gap-8">
        {machines.map((m, i) => (
          <Side
            key={m.id}
            machine={m}
            place={`${i + 1} of ${machines.length}`}
            caps={caps[i]}
            atLeastW={atLeastW}
          />
        ))}
      </div>
      <div className="flex items-baseline justify-between gap-4 mt-6 mb-1">
        <h2 className="font-semibold">
          {rows.length === 0
            ? 'The records are the same'
            : `${plural(rows.length, 'field')} ${rows.length === 1 ? 'differs' : 'differ'}`}
        </h2>
        {rows.length > 8 && (
          <input
            type="search"
            className="input input-sm w-52"
            aria-label="show fields with these words"
            placeholder="fields with …"
            maxLength={60}
            value={filter}
            onChange={(e) => setFilter(e.currentTarget.value)}
          />
        )}
      </div>
      <div
        data-testid="differences"
        className="overflow-x-auto"
        tabIndex={0}
        role="region"
        aria-label="fields that differ"
      >
        <ComparedTable rows={shown.slice(0, SHOWN)} machines={machines} />
      </div>
    </>
  );
}

function ComparedTable({
  rows,
  machines,
}: {
  rows: readonly ComparedField[];
  machines: readonly Machine[];
}) {
  const valueOf = valueWordsOf('record');
  return (
    <table className="w-full text-left border-collapse text-[0.9rem]">
      <thead>
        <tr className="border-b border-ink text-small align-bottom">
          <th className="font-normal px-1.5 py-1">field</th>
          {machines.map((m) => {
            const { name, variant } = machineName(m.record as Draft);
            return (
              <th key={m.id} className="font-normal px-1.5 py-1">
                {[name, variant, m.stateName].filter(Boolean).join(', ')}
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.path} className="border-b border-rule align-top">
            <td className="px-1.5 py-0.5">{nameOf(r.path)}</td>
            {r.values.map((x, i) => (
              <td key={machines[i]!.id} className="px-1.5 py-0.5 figure text-small break-words">
                {valueOf(x, r.path)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Side({
  machine,
  place,
  caps,
  atLeastW,
}: {
  machine: Machine;
  /** “1 of 2”: two may be called the same. */
  place: string;
  caps: BandedAnswer;
  atLeastW: number;
}) {
  const { name, variant } = machineName(machine.record as Draft);
  const splits = useMemo(
    () => (caps ? splitsOf({ record: machine.record as CaseRecord }) : null),
    [caps, machine.record],
  );
  return (
    <section aria-label={`${name}, ${variant}, ${machine.stateName}, ${place}`}>
      <h2 className="font-semibold">
        <Link to={`/machines/${machine.id}/cooling`} className="hover:underline">
          {name}
        </Link>
      </h2>
      <p className="text-quiet text-[0.9rem] mb-2">
        {[variant, machine.unit.facts.serial, machine.stateName].filter(Boolean).join(' · ')}
      </p>
      {caps === undefined ? (
        <p className="text-quiet">Computing.</p>
      ) : caps ? (
        <NoiseLadder
          caps={caps}
          readout="together"
          stale={false}
          splits={splits}
          atLeastW={atLeastW}
        />
      ) : (
        <p className="text-quiet">No answer yet: figures are missing.</p>
      )}
    </section>
  );
}
