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
  for (const c of contacts) sum += c.watts * integralTo(c.fromM, c.toM, x);
  return sum;
}

/** Integral up to a place of the flow that one watt makes, spread evenly over a contact. */
function integralTo(fromM: number, toM: number, x: number): number {
  if (x <= fromM) return 0;
  if (x >= toM) return x - 0.5 * (fromM + toM);
  return (x - fromM) ** 2 / (2 * (toM - fromM));
}

/** Share of such a watt that has entered up to a place. */
function enteredTo(fromM: number, toM: number, x: number): number {
  return Math.min(1, Math.max(0, (x - fromM) / (toM - fromM)));
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

/**
 * Integral and flow `Q(x) = ∫₀ˣ q dx'` at the places of {@link axialPlaces} for one watt entering at each contact, shared by alike
 * pipes.
 *
 * @param contacts along the pipe
 * @param count of alike pipes
 * @param out with room for places × contacts, overwritten
 */
export function axialProfileInto(
  contacts: readonly { fromM: number; toM: number }[],
  count: number,
  out: { perHeat: number; spanM: number; integral: Float64Array; flow: Float64Array },
): void {
  const m = contacts.length;
  const perHeat = 1 / count;
  let first = Infinity;
  let last = -Infinity;
  let i = 0;
  for (let c = 0; c < m; c++) {
    const { fromM, toM } = contacts[c]!;
    for (let k = 0; k <= INNER.length + 1; k++, i++) {
      const x = k === 0 ? fromM : k > INNER.length ? toM : fromM + INNER[k - 1]! * (toM - fromM);
      first = Math.min(first, x);
      last = Math.max(last, x);
      for (let j = 0; j < m; j++) {
        const other = contacts[j]!;
        out.integral[i * m + j] = perHeat * integralTo(other.fromM, other.toM, x);
        out.flow[i * m + j] = perHeat * enteredTo(other.fromM, other.toM, x);
      }
    }
  }
  out.perHeat = perHeat;
  out.spanM = m ? last - first : 0;
}
