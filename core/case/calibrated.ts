/**
 * What bench runs taught of a machine's figures: the values of a fit, and sets of values that are all still possible, each as
 * likely as the others.
 */
export interface CaseCalibration {
  /** Figures and factors that the fit moved. */
  paths: readonly string[];
  /** Their values at the fit. */
  values: readonly number[];
  /** `count` sets of values, one after the other, each in the order of `paths`. */
  rows: Float64Array;
  count: number;
}
