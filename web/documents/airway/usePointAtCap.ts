import { useEffect, useRef, useState } from 'react';
import type { PointReadout } from '@zugluft/core/envelope/pointReadout';
import { useMachineFile } from '../record/MachineFile';
import { estimateWorker } from '../answer/workers/estimateClient';
import { latestOnly } from '../answer/workers/latestOnly';

/** Temperatures, flows and pipe watts where a cap carries most together; null until they are computed. */
export function usePointAtCap(cap: number | 'off' | 'full'): PointReadout | null {
  const { live } = useMachineFile();
  const [point, setPoint] = useState<PointReadout | null>(null);
  const submit = useRef(latestOnly());
  const { request } = live;
  const together = live.estimate?.caps.find((c) => c.cap === cap)?.together;
  const cpuW = together?.cpuWatts;
  const gpuW = together?.gpuWatts;
  useEffect(() => {
    if (!request || cpuW === undefined || gpuW === undefined) {
      setPoint(null);
      return;
    }
    let open = true;
    submit.current(async () => {
      const found = await estimateWorker().readPoint(request, cap, cpuW, gpuW);
      if (open) setPoint(found);
    });
    return () => {
      open = false;
    };
  }, [request, cap, cpuW, gpuW]);
  return point;
}
