/** Heat entering a pipe along one contact (W, negative where it leaves), spread evenly from begin to end (m). */
export interface AxialHeat {
  fromM: number;
  toM: number;
  watts: number;
}

/**
 * Running integral of the axial heat flow, `I(x) = ∫₀ˣ Q dx'` with `Q(x) = ∫₀ˣ q dx'`, at one place.
 *
 * The liquid's and the vapor's pressure both fall in proportion to it, so the pipe's greatest pressure difference is its
 * range over x. A pipe with fins at both ends and dies between has a quarter of the range of one with a single finned end.
 *
 * @param contacts heat along the pipe, W
 * @param x place, m
 * @returns W·m
 */
export function axialIntegral(contacts: readonly AxialHeat[], x: number): number {
  let sum = 0;
  for (const c of contacts) {
    const length = c.toM - c.fromM;
    if (x <= c.fromM) continue;
    if (x >= c.toM) sum += c.watts * (x - 0.5 * (c.fromM + c.toM));
    else sum += (c.watts * (x - c.fromM) ** 2) / (2 * length);
  }
  return sum;
}

/**
 * Axial heat flow `Q(x) = ∫₀ˣ q dx'` at one place.
 *
 * @param contacts heat along the pipe, W
 * @param x place, m
 * @returns W
 */
export function axialFlow(contacts: readonly AxialHeat[], x: number): number {
  let sum = 0;
  for (const c of contacts) {
    sum += c.watts * Math.min(1, Math.max(0, (x - c.fromM) / (c.toM - c.fromM)));
  }
  return sum;
}

/** Parts of a contact at which the integral is sampled, besides its ends. */
const INNER = [0.25, 0.5, 0.75];

/**
 * Places where the axial integral can peak: begin, end and inner points of each contact (between contacts it is straight).
 */
export function axialPlaces(contacts: readonly { fromM: number; toM: number }[]): number[] {
  const places: number[] = [];
  for (const c of contacts) {
    places.push(c.fromM);
    for (let i = 0; i < INNER.length; i++) places.push(c.fromM + INNER[i]! * (c.toM - c.fromM));
    places.push(c.toM);
  }
  return places;
}
