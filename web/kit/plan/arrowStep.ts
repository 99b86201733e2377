/**
 * How far an arrow key moves something on a plan, right and down; null for any other key.
 *
 * @param step of one press
 * @param shiftStep of one press with Shift
 * @example arrowStep({ key: 'ArrowUp', shiftKey: true }, 2, 10) // [0, -10]
 */
export function arrowStep(
  { key, shiftKey }: { key: string; shiftKey: boolean },
  step: number,
  shiftStep: number,
): readonly [number, number] | null {
  const by = shiftKey ? shiftStep : step;
  switch (key) {
    case 'ArrowLeft':
      return [-by, 0];
    case 'ArrowRight':
      return [by, 0];
    case 'ArrowUp':
      return [0, -by];
    case 'ArrowDown':
      return [0, by];
    default:
      return null;
  }
}
