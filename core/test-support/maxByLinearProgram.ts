import { solve } from 'yalps';

/**
 * The most of `weight·cpu + (1 − weight)·gpu` under limits, both at least 0, by yalps' simplex: the reference for polygons.
 */
export function maxByLinearProgram(
  limits: readonly { cpu: number; gpu: number; headroom: number }[],
  weight: number,
): number {
  const constraints: Record<string, { max: number }> = {};
  const cpu: Record<string, number> = { goal: weight };
  const gpu: Record<string, number> = { goal: 1 - weight };
  limits.forEach((l, i) => {
    constraints[`l${i}`] = { max: l.headroom };
    cpu[`l${i}`] = l.cpu;
    gpu[`l${i}`] = l.gpu;
  });
  return solve({
    direction: 'maximize',
    objective: 'goal',
    constraints,
    variables: { cpu, gpu },
  }).result;
}
