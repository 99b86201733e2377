/** The middle one of some values, of an even number the upper; NaN of none. */
export const medianOf = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN;
