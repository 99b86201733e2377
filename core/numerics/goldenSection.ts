const GOLDEN = (Math.sqrt(5) - 1) / 2;

/**
 * Narrows an interval about the greatest value of a function of one hump, by golden section. What is found is whatever the
 * function kept of its calls: it is called two times and then once for each step.
 *
 * @param at the function
 * @param from, to ends of the interval
 * @param steps how often it is narrowed, each time to 0.618 of before
 * @returns the ends that are left
 * @example goldenSection((x) => -((x - 2) ** 2), 0, 5, 30) // both near 2
 * Source: Kiefer 1953.
 */
export function goldenSection(
  at: (x: number) => number,
  from: number,
  to: number,
  steps: number,
): [number, number] {
  let lo = from;
  let hi = to;
  let a = hi - GOLDEN * (hi - lo);
  let b = lo + GOLDEN * (hi - lo);
  let atA = at(a);
  let atB = at(b);
  for (let i = 0; i < steps; i++) {
    // of two alike the nearer end stays: beyond the range of a function there is nothing
    if (atA >= atB) {
      hi = b;
      b = a;
      atB = atA;
      a = hi - GOLDEN * (hi - lo);
      atA = at(a);
    } else {
      lo = a;
      a = b;
      atA = atB;
      b = lo + GOLDEN * (hi - lo);
      atB = at(b);
    }
  }
  return [lo, hi];
}
