import type { CapEstimate, Readout, ReadoutName, Readouts } from '../case/answer';

/**
 * A cap's answer with each of its readouts changed, those of what the cooling carries and those of the machine as configured.
 *
 * @param cap the answer
 * @param change makes a readout of one, told its name and which of the two it belongs to
 */
export function mapReadouts(
  cap: CapEstimate,
  change: <T extends Readout>(readout: T, name: ReadoutName, as: 'carried' | 'configured') => T,
): CapEstimate {
  const side = (of: Readouts, as: 'carried' | 'configured'): Readouts => ({
    ...of,
    cpuAlone: of.cpuAlone && change(of.cpuAlone, 'cpuAlone', as),
    gpuAlone: of.gpuAlone && change(of.gpuAlone, 'gpuAlone', as),
    together: change(of.together, 'together', as),
  });
  return { ...cap, ...side(cap, 'carried'), configured: side(cap.configured, 'configured') };
}
