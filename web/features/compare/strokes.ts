/** Lines differ by their stroke, so that they are told apart in print too. */
export const STROKES: readonly (number[] | 'solid')[] = [
  'solid',
  [9, 3],
  [4, 3],
  [1, 3],
  [9, 3, 1, 3],
];
