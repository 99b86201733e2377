import { useEffect, useRef, useState } from 'react';
import type { CapEstimate } from '@zugluft/core/case/answer';
import { capWord, heldWords, shownW, wattsText } from '@zugluft/core/case/answerWords';
import { READOUT_WORDS, type ReadoutName } from '../../documents/answer/NoiseLadder';
import { middleCap } from '../../documents/answer/caps';
import { useMachineFile } from '../../documents/record/MachineFile';

/** The answer for those who hear it: one rung, once the hand rests, and only where it changed. */
export function Announcement({
  caps,
  readout,
}: {
  caps: readonly CapEstimate[] | undefined;
  readout: ReadoutName;
}) {
  const { typing, stale, provisional, caps: all } = useMachineFile();
  const [said, setSaid] = useState('');
  const cap = middleCap(all);
  const rung = caps?.find((c) => c.cap === cap);
  const r = rung?.[readout];
  const words =
    rung && r
      ? `${READOUT_WORDS[readout]} at ${capWord(rung.cap)}${typeof rung.cap === 'number' ? ' dB(A)' : ''}: ${wattsText(shownW(r))} watts, held by ${heldWords(r)}`
      : '';
  // what stood there when the file was opened is read where it stands
  const first = useRef(true);
  useEffect(() => {
    if (typing || stale || provisional || words === '') return;
    if (first.current) first.current = false;
    else setSaid(words);
  }, [typing, stale, provisional, words]);
  return (
    <p className="sr-only" aria-live="polite" data-testid="announcement">
      {said}
    </p>
  );
}
