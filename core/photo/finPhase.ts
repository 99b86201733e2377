/** Where fins are along a profile: a number that grows by one from a fin to the next. */
export interface FinPhase {
  /** Of each place of a grid. */
  fins: Float64Array;
  /** Steps between places of the grid. */
  hop: number;
  /** Half the height of the swing there. */
  swing: Float64Array;
}

/** Pitches of the window through which the phase is seen. */
const WINDOW = 5;
const HOPS_PER_PITCH = 4;
/** Where the swing is smaller than this share of what is usual, the phase is carried over. */
const TRUSTED = 0.35;

/**
 * Follows what repeats along a profile: its phase at a pitch, seen through a window of a few pitches, carried evenly over places where
 * nothing swings.
 *
 * @param light a profile
 * @param pitch steps
 */
export function finPhase(light: Float64Array, pitch: number): FinPhase {
  const n = light.length;
  const hop = Math.max(1, Math.floor(pitch / HOPS_PER_PITCH));
  const places = Math.floor((n - 1) / hop) + 1;
  const half = Math.round((WINDOW * pitch) / 2);
  const wave = (2 * Math.PI) / pitch;
  const kernel = Float64Array.from(
    { length: 2 * half + 1 },
    (_, k) => 1 + Math.cos((Math.PI * (k - half)) / (half + 1)),
  );
  const re = new Float64Array(places);
  const im = new Float64Array(places);
  const cos = Float64Array.from({ length: n }, (_, i) => Math.cos(wave * i));
  const sin = Float64Array.from({ length: n }, (_, i) => Math.sin(wave * i));
  for (let g = 0; g < places; g++) {
    const at = g * hop;
    const lo = at < half ? 0 : at - half;
    const hi = at + half >= n ? n - 1 : at + half;
    let weight = 0;
    let mean = 0;
    for (let i = lo; i <= hi; i++) {
      const w = kernel[i - at + half]!;
      weight += w;
      mean += w * light[i]!;
    }
    mean /= weight;
    let a = 0;
    let b = 0;
    for (let i = lo; i <= hi; i++) {
      const x = kernel[i - at + half]! * (light[i]! - mean);
      a += x * cos[i]!;
      b -= x * sin[i]!;
    }
    re[g] = a / weight;
    im[g] = b / weight;
  }
  const swing = re.map((a, g) => 2 * Math.hypot(a, im[g]!));
  const usual = [...swing].sort((a, b) => a - b)[Math.floor(0.7 * places)]!;
  const trusted = swing.map((s) => (s > TRUSTED * usual ? 1 : 0));
  // a whole turn later is the same phase: each place goes on from the trusted one before
  const fins = new Float64Array(places);
  let before = -1;
  for (let g = 0; g < places; g++) {
    if (!trusted[g]) continue;
    const raw = (g * hop) / pitch + Math.atan2(im[g]!, re[g]!) / (2 * Math.PI);
    if (before < 0) fins[g] = raw;
    else {
      const wanted = fins[before]! + ((g - before) * hop) / pitch;
      fins[g] = raw + Math.round(wanted - raw);
      for (let k = before + 1; k < g; k++) {
        fins[k] = fins[before]! + ((fins[g]! - fins[before]!) * (k - before)) / (g - before);
      }
    }
    before = g;
  }
  const firstTrusted = trusted.indexOf(1);
  for (let g = firstTrusted - 1; g >= 0; g--) fins[g] = fins[g + 1]! - hop / pitch;
  for (let g = before + 1; g < places; g++) fins[g] = fins[g - 1]! + hop / pitch;
  return { fins, hop, swing };
}

/** Places along the profile, in steps, of each whole number of fins. */
export function finPlaces({ fins, hop }: FinPhase): { fin: number; at: number }[] {
  const out: { fin: number; at: number }[] = [];
  for (let g = 0; g + 1 < fins.length; g++) {
    const a = fins[g]!;
    const b = fins[g + 1]!;
    for (let fin = Math.ceil(a); fin < b; fin++) {
      if (b > a) out.push({ fin, at: hop * (g + (fin - a) / (b - a)) });
    }
  }
  return out;
}
