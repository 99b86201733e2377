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
  /** The solution at the central figures: the most that could be, not what to expect. */
  watts: number;
  /** Of the draws; null without any. The median is the figure that people are shown. */
  p05: number | null;
  p50: number | null;
  p95: number | null;
  /** In what share of the draws each limit holds, the most frequent first; empty without draws. */
  held: HeldShare[];
  binding: Binding;
  fans: FanReadout[];
}

/** A limit, and the share of the draws in which it holds. */
export interface HeldShare {
  limit: Binding['limit'];
  part: string;
  share: number;
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
