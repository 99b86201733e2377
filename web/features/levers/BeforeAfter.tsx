import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import { applyChanges } from '@zugluft/core/levers/applyChanges';
import { calibrationAfter } from '@zugluft/core/levers/calibrationAfter';
import type { Change } from '@zugluft/core/levers/lever';
import { outlineAfter } from '@zugluft/core/levers/outlineAfter';
import { LazyEnvelopeChart } from '../../documents/answer/LazyEnvelopeChart';
import { ruledLimits } from '../../documents/answer/ruledLimits';
import { shownW, wattsText } from '@zugluft/core/case/answerWords';
import { estimateWorker } from '../../documents/answer/workers/estimateClient';
import { useMachineFile } from '../../documents/record/MachineFile';
import { useTheme } from '../../kit/theme';
import { COMPUTED_HERE } from '../../documents/answer/computedHere';

/** A case after changes, in the same ratio. */
export function requestAfter(request: CaseRequest, change: readonly Change[]): CaseRequest {
  const calibration =
    request.calibration &&
    calibrationAfter(
      request.calibration,
      change.map((c) => c.path),
    );
  const { ratio } = openCase(request);
  return {
    ...request,
    ...applyChanges(request.record, change, request.setting),
    calibration,
    ratio: { ...ratio },
  };
}

/** The envelope at a cap as it is and as it would be: of the lever that is pointed at, else of those chosen. */
export function BeforeAfter({
  cap,
  change,
  name,
}: {
  cap: Cap;
  change: readonly Change[] | null;
  name: string;
}) {
  const { live } = useMachineFile();
  const { theme } = useTheme();
  const { request } = live;
  const today = live.outlines?.caps.find((c) => c.cap === cap);
  const ruled = useMemo(() => (request ? ruledLimits(openCase(request)) : null), [request]);
  const { data: after } = useQuery({
    queryKey: ['levers', 'after', request, change, cap],
    queryFn: async () => {
      const answer = await estimateWorker().estimate(requestAfter(request!, change!), {
        caps: [cap],
      });
      return answer.caps[0]!;
    },
    enabled: request !== null && change !== null,
    ...COMPUTED_HERE,
    staleTime: Infinity,
  });
  const own = live.estimate?.caps.find((c) => c.cap === cap);
  const shown = useMemo(
    () => (after && own && change ? outlineAfter(own, after) : null),
    [after, own, change],
  );
  const caps = useMemo(() => (today ? [today] : []), [today]);
  const over = useMemo(
    () => (shown && shown.envelope.length > 1 ? { name, envelope: shown.envelope } : null),
    [shown, name],
  );
  const isOutlined = today !== undefined && today.envelope.length > 1;
  if (!today || !own || !ruled || (!isOutlined && !change)) return null;
  return (
    <section aria-label="before and after">
      <h2 className="font-semibold">Before and after</h2>
      {isOutlined && (
        <div className="h-56">
          <LazyEnvelopeChart
            caps={caps}
            ruled={ruled}
            marked={null}
            over={over}
            large={false}
            theme={theme}
          />
        </div>
      )}
      <p className="text-[0.9rem]" data-testid="before-after">
        today <span className="figure">{wattsText(shownW(own.together))}</span>{' '}
        <span className="unit">W</span>
        {shown && (
          <>
            , {name} <span className="figure text-heat">{wattsText(shownW(shown.together))}</span>{' '}
            <span className="unit">W</span>
          </>
        )}
      </p>
    </section>
  );
}
