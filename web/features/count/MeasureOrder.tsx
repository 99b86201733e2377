import { Link } from 'react-router';
import { middleCap } from '../../documents/answer/caps';
import { capWord } from '@zugluft/core/case/answerWords';
import { useMachineFile } from '../../documents/record/MachineFile';
import { useMeasureNext } from '../../documents/record/useMeasureNext';

/** What to measure after counting, in the order in which it narrows the answer. */
export function MeasureOrder() {
  const { caps } = useMachineFile();
  const items = useMeasureNext();
  const cap = middleCap(caps);
  if (!items?.length) return null;
  return (
    <section aria-label="then measure" className="border-t border-rule pt-3 mt-3">
      <h2 className="font-semibold mb-1">Then measure, in this order</h2>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="what to measure">
        <table className="w-full text-[0.9rem] text-left">
          <thead>
            <tr className="text-small text-quiet border-b border-ink">
              <th className="font-normal py-1 pr-3">figure</th>
              <th className="font-normal pr-3">how</th>
              <th className="font-normal text-right whitespace-nowrap">
                band at {capWord(cap)} {typeof cap === 'number' && 'dB(A)'}
              </th>
            </tr>
          </thead>
          <tbody>
            {items.map((i) => (
              <tr key={i.key} className="border-b border-rule align-top">
                <th scope="row" className="font-normal py-1 pr-3">
                  <Link to={i.to} title={i.settles} className="underline underline-offset-2">
                    {i.what}
                  </Link>
                </th>
                <td className="pr-3 text-quiet">{i.how}</td>
                <td className="figure text-right whitespace-nowrap">
                  ± {i.nowW} → ± {i.thenW} <span className="unit">W</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
