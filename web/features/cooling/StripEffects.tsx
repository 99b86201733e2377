import { useEffect, useRef, useState } from 'react';
import type { StripStates } from '@zugluft/core/case/stripStates';
import { useMachineFile } from '../../documents/record/MachineFile';
import { wattsText } from '@zugluft/core/case/answerWords';
import { atCap, middleCap } from '../../documents/answer/caps';
import { estimateWorker } from '../../documents/answer/workers/estimateClient';
import { latestOnly } from '../../documents/answer/workers/latestOnly';

/** Each strip in both its states, computed: more air without it, or a sealed duct with it. */
export function StripEffects() {
  const { live, caps } = useMachineFile();
  const cap = middleCap(caps);
  const [states, setStates] = useState<StripStates[]>([]);
  const submit = useRef(latestOnly());
  const { request } = live;
  useEffect(() => {
    if (!request?.record.strips?.length) {
      setStates([]);
      return;
    }
    let open = true;
    submit.current(async () => {
      const found = await estimateWorker().stripStates(request, cap);
      if (open) setStates(found);
    });
    return () => {
      open = false;
    };
  }, [request, cap]);
  if (!states.length) return null;
  return (
    <section aria-label="strips in both states" className="px-1.5 py-2 text-[0.9rem]">
      <h3 className="text-small text-quiet mb-1">
        Computed {atCap(cap)}, together, with the strip there and without it
      </h3>
      <ul>
        {states.map((s) => (
          <li key={s.id} className="flex gap-6">
            <span className="figure w-28">{s.id}</span>
            <span>
              present <span className="figure">{wattsText(s.presentW)}</span>{' '}
              <span className="unit">W</span>
            </span>
            <span>
              removed <span className="figure">{wattsText(s.removedW)}</span>{' '}
              <span className="unit">W</span>
            </span>
          </li>
        ))}
      </ul>
      <p className="text-small text-quiet mt-1">
        Do not take a strip off before its purpose is known.
      </p>
    </section>
  );
}
