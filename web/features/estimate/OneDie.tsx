import { useCommands } from '../../documents/commands';
import { useEffect, useRef, useState } from 'react';
import type { Explanation } from '@zugluft/core/case/explain';
import { useMachineFile } from '../../documents/record/MachineFile';
import { middleCap } from '../../documents/answer/caps';
import { Kbd } from '../../kit/Kbd';
import { capWord, heldWords, shownW, wattsText } from '@zugluft/core/case/answerWords';
import { estimateWorker } from '../../documents/answer/workers/estimateClient';
import { latestOnly } from '../../documents/answer/workers/latestOnly';
import { KelvinChain } from './KelvinChain';
import { LimitsAhead } from './LimitsAhead';

/** A machine with one die has no envelope: its watts over the caps say all, and for the chosen one why. */
export function OneDie() {
  const { live, caps: labCaps } = useMachineFile();
  const caps = live.estimate?.caps ?? [];
  const [chosen, setChosen] = useState<number | null>(null);
  const usual = caps.findIndex((c) => c.cap === middleCap(labCaps));
  const at = Math.min(chosen ?? Math.max(0, usual), caps.length - 1);
  const cap = caps[at]?.cap;
  const [why, setWhy] = useState<Explanation | null>(null);
  const submit = useRef(latestOnly());
  const { request } = live;
  useEffect(() => {
    if (!request || cap === undefined) return;
    let open = true;
    submit.current(async () => {
      const found = await estimateWorker().explain(request, cap, 'together');
      if (open) setWhy(found);
    });
    return () => {
      open = false;
    };
  }, [request, cap]);
  const step = (by: number) => setChosen(Math.min(caps.length - 1, Math.max(0, at + by)));
  useCommands({
    along: (key) => (key === 'ArrowUp' ? step(-1) : key === 'ArrowDown' ? step(1) : undefined),
  });
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[minmax(0,1fr)_17rem] gap-x-8 gap-y-4">
      <div>
        <p className="text-quiet pb-3">
          This machine has one die, so there is nothing to share out: what it sustains at each cap
          is the whole answer.
        </p>
        <table className="w-full">
          <thead className="text-small text-quiet text-left border-b border-rule">
            <tr>
              <th className="font-normal py-1">cap</th>
              <th className="font-normal text-right">carries</th>
              <th className="font-normal text-right pl-4">5–95 %</th>
              <th className="font-normal text-right pl-4">as set</th>
              <th className="font-normal pl-4">held by</th>
            </tr>
          </thead>
          <tbody>
            {caps.map((c, i) => (
              <tr
                key={String(c.cap)}
                className={`border-b border-rule cursor-pointer ${i === at ? 'bg-base-200' : ''}`}
                aria-current={i === at || undefined}
                onClick={() => setChosen(i)}
              >
                <td className="py-1 pl-1 whitespace-nowrap">
                  {capWord(c.cap)}{' '}
                  {typeof c.cap === 'number' && <span className="unit">dB(A)</span>}
                </td>
                <td className="figure text-right whitespace-nowrap">
                  {wattsText(shownW(c.together))} <span className="unit">W</span>
                </td>
                <td className="figure text-right whitespace-nowrap text-small text-quiet pl-4">
                  {c.together.p05 !== null &&
                    c.together.p95 !== null &&
                    `${wattsText(c.together.p05)}–${wattsText(c.together.p95)}`}
                </td>
                <td className="figure text-right whitespace-nowrap pl-4">
                  {wattsText(shownW(c.configured.together))} <span className="unit">W</span>
                </td>
                <td className="pl-4">{heldWords(c.together)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="text-[0.9rem] text-quiet pt-2 no-print">
          another cap <Kbd>↑</Kbd> <Kbd>↓</Kbd>
        </p>
      </div>
      {why && why.chains[0] && cap !== undefined && (
        <aside aria-label="at the chosen cap">
          <div className="flex justify-between items-baseline">
            <h2 className="font-semibold">Where the kelvins go</h2>
            <span className="figure text-[0.9rem]">
              {capWord(cap)} {typeof cap === 'number' && <span className="unit">dB(A)</span>}
            </span>
          </div>
          <KelvinChain chain={why.chains[0]} />
          <h3 className="text-small font-semibold mt-3 mb-0.5">
            What binds, and what would be next
          </h3>
          <LimitsAhead why={why} />
        </aside>
      )}
    </div>
  );
}
