import { useState } from 'react';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { CapSelect } from '../../documents/answer/CapSelect';
import { middleCap } from '../../documents/answer/caps';
import { heldWords, shownW, wattsText } from '@zugluft/core/case/answerWords';
import { useMachineFile } from '../../documents/record/MachineFile';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { ReadoutPanel } from './ReadoutPanel';

/** On a narrow screen: the answer at one cap, in sight at the foot of the page while one types; it opens to the ladder. */
export function AnswerBar() {
  const { live, stored, caps, addCap, stale } = useMachineFile();
  const [chosen, setCap] = useState<Cap | null>(null);
  const [open, setOpen] = useState(false);
  const cap = chosen !== null && caps.includes(chosen) ? chosen : middleCap(caps);
  const together = live.estimate?.caps.find((c) => c.cap === cap)?.together;
  const before = together ? undefined : stored?.find((b) => b.cap === cap);
  return (
    <aside
      aria-label="answer"
      data-testid="answer-bar"
      className="sticky bottom-0 z-30 bg-base-100 border-t border-ink no-print"
    >
      {open && (
        <div
          className="max-h-[60vh] overflow-y-auto p-4 border-b border-rule"
          tabIndex={0}
          role="region"
          aria-label="the whole answer"
        >
          <ReadoutPanel />
        </div>
      )}
      <div className="flex items-center gap-3 px-3 min-h-12">
        <span className="text-quiet">at</span>
        <CapSelect
          label="cap of the bar"
          caps={caps}
          value={cap}
          choose={(c) => {
            addCap(c);
            setCap(c);
          }}
        />
        <span className={`grow min-w-0 ${stale ? 'opacity-60' : ''}`}>
          {together ? (
            <>
              <span className="figure text-lg">{wattsText(shownW(together))}</span>{' '}
              <span className="unit">W</span>
              {together.p05 !== null && together.p95 !== null && (
                <span className="figure text-small text-quiet">
                  {' '}
                  {wattsText(together.p05)}–{wattsText(together.p95)}
                </span>
              )}
              <span className="block truncate text-small text-quiet leading-tight">
                {heldWords(together)}
              </span>
            </>
          ) : before ? (
            <>
              <span className="figure text-lg">{wattsText(before.p50)}</span>{' '}
              <span className="unit">W</span>
              <span className="figure text-small text-quiet">
                {' '}
                {wattsText(before.p05)}–{wattsText(before.p95)}
              </span>
            </>
          ) : (
            <span className="text-quiet">no answer yet</span>
          )}
        </span>
        <button
          type="button"
          aria-expanded={open}
          aria-label={open ? 'close the ladder' : 'open the ladder'}
          className="cursor-pointer flex items-center justify-center"
          onClick={() => setOpen((x) => !x)}
        >
          {open ? <ChevronDown size={18} aria-hidden /> : <ChevronUp size={18} aria-hidden />}
        </button>
      </div>
    </aside>
  );
}
