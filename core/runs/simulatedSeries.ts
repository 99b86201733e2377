import type { OpenCase } from '../case/openCase';
import type { Channel } from '../logs/channelNames';
import type { Simulation } from '../transient/simulateFirmware';
import { pixelSeries, type PixelSeries } from './pixelSeries';

/**
 * A simulated load as a chart of a run shows it, in the channels of a log.
 *
 * @param simulation its time counts from the start of the load
 * @param open the case that was simulated
 * @param pixels stretches, at least one
 */
export function simulatedSeries(
  simulation: Simulation,
  { data }: Pick<OpenCase, 'data'>,
  pixels: number,
): PixelSeries & { lastS: number } {
  const { stepS, steps, cpuW, gpuW, levelDbA, junctionC } = simulation;
  const column = (is: Channel, values: Float64Array) => ({ column: is, is, unit: '', values });
  const has = (role: 'cpu' | 'gpu') => data.dies.some((d) => d.role === role);
  const heard = Float64Array.from(levelDbA, (x) => (Number.isFinite(x) ? x : NaN));
  const columns = [
    ...(has('cpu') ? [column('cpuPowerW', cpuW)] : []),
    ...(has('gpu') ? [column('gpuPowerW', gpuW)] : []),
    ...data.dies.map((d) =>
      column(
        d.role === 'cpu' ? 'cpuC' : 'gpuC',
        junctionC.find((j) => j.id === d.id)!.temperatureC,
      ),
    ),
    column('levelDbA', heard),
  ];
  const timeS = Float64Array.from({ length: steps }, (_, k) => k * stepS);
  const lastS = Math.max(stepS, (steps - 1) * stepS);
  return { ...pixelSeries({ timeS, columns }, 0, lastS, Math.min(pixels, steps)), lastS };
}
