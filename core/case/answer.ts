import type { EnvelopeCorner } from '../envelope/envelope';
import type { Cap } from '../envelope/fanStates';
import type { Binding } from '../envelope/limitTypes';
import type { RangeNote } from '../network/rangeNotes';
import type { AssumedFigure } from '../record/resolver';

export interface FanReadout {
  id: string;
  rpm: number;
  flowLps: number;
}

export interface Readout {
  watts: number;
  p05: number | null;
  p95: number | null;
  binding: Binding;
  fans: FanReadout[];
}

export interface TogetherReadout extends Readout {
  cpuWatts: number;
  gpuWatts: number;
}

export interface Readouts {
  cpuAlone: Readout | null;
  gpuAlone: Readout | null;
  together: TogetherReadout;
  envelope: EnvelopeCorner[];
}

export interface CapEstimate extends Readouts {
  cap: Cap;
  levelDbA: number | null;
  note: string | null;
  configured: Readouts;
}

/** The answer, as record-format.md describes it. */
export interface Estimate {
  format: 'zugluft-estimate';
  formatVersion: 1;
  caps: CapEstimate[];
  sensitivity: SensitivityShare[];
  assumed: AssumedFigure[];
  /** Where a correlation was used outside its range, a solver ended at its bound, or a pipe's neighbours would take over. */
  notes: RangeNote[];
}

/** What share of a readout's spread an input causes, by rank regression. */
export interface SensitivityShare {
  readout: ReadoutName;
  cap: Cap;
  input: string;
  share: number;
}

export const READOUT_NAMES = ['cpuAlone', 'gpuAlone', 'together'] as const;
export type ReadoutName = (typeof READOUT_NAMES)[number];
