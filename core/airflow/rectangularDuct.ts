/**
 * Fully developed laminar friction in a rectangular duct, Fanning f·Re on the hydraulic diameter.
 *
 * `24 (1 − 1.3553α + 1.9467α² − 1.7012α³ + 0.9564α⁴ − 0.2537α⁵)`
 *
 * @param aspect short side over long side α, 0…1
 * Source: Shah & London 1978, polynomial fit; from memory, checked against their table in the tests.
 * @example ductFrictionRe(1) // 14.2
 */
export function ductFrictionRe(aspect: number): number {
  const a = aspect;
  return 24 * (1 + a * (-1.3553 + a * (1.9467 + a * (-1.7012 + a * (0.9564 - 0.2537 * a)))));
}

/**
 * Fully developed laminar Nusselt number in a rectangular duct, uniform wall temperature, on the hydraulic diameter.
 *
 * `7.541 (1 − 2.610α + 4.970α² − 5.119α³ + 2.702α⁴ − 0.548α⁵)`
 *
 * @param aspect short side over long side α, 0…1
 * Source: Shah & London 1978, polynomial fit; from memory, checked against their table in the tests.
 */
export function ductNusseltT(aspect: number): number {
  const a = aspect;
  return 7.541 * (1 + a * (-2.61 + a * (4.97 + a * (-5.119 + a * (2.702 - 0.548 * a)))));
}

/** A passage between two fins with what follows from its shape alone, so that it is worked out once. */
export interface Duct {
  gapM: number;
  heightM: number;
  lengthM: number;
  areaM2: number;
  hydraulicM: number;
  /** √A over the hydraulic diameter. */
  toRootA: number;
  /** L / √A. */
  lengthOverRootA: number;
  /** Fully developed f·Re and Nu, both on √A. */
  frictionRootA: number;
  nusseltRootA: number;
}

/** A passage of given gap, height and length in metres, all > 0. */
export function ductOf(gapM: number, heightM: number, lengthM: number): Duct {
  const areaM2 = gapM * heightM;
  const rootA = Math.sqrt(areaM2);
  const hydraulicM = (2 * areaM2) / (gapM + heightM);
  const aspect = Math.min(gapM, heightM) / Math.max(gapM, heightM);
  const toRootA = rootA / hydraulicM;
  return {
    gapM,
    heightM,
    lengthM,
    areaM2,
    hydraulicM,
    toRootA,
    lengthOverRootA: lengthM / rootA,
    frictionRootA: ductFrictionRe(aspect) * toRootA,
    nusseltRootA: ductNusseltT(aspect) * toRootA,
  };
}

/** Reynolds numbers between which laminar and turbulent heat transfer are mixed. */
export const LAMINAR_END = 2300;
export const TURBULENT_START = 4000;
/** Beyond this the turbulent correlations are extrapolated. */
export const HIGHEST_REYNOLDS = 1e5;

/**
 * Apparent Fanning friction factor of developing flow in a rectangular duct, blended into turbulent flow.
 *
 * Laminar: `f·Re_√A = √[(3.44/√z⁺)² + (f·Re_fd)²]`, `z⁺ = L / (√A · Re_√A)`, with the fully developed value of the exact
 * duct. Turbulent: Blasius, `0.0791 Re^−0.25`. Blend: eighth-power mean of both, so that the greater one rules.
 *
 * @param duct the passage
 * @param reynolds Reynolds number on the hydraulic diameter, 0 < Re ≤ 1e5
 * Source: Muzychka & Yovanovich, J. Fluids Eng. 131 (2009) 041105; Shah & London 1978; from memory.
 */
export function ductApparentFriction(duct: Duct, reynolds: number): number {
  const reRootA = reynolds * duct.toRootA;
  const entry2 = (3.44 * 3.44 * reRootA) / duct.lengthOverRootA;
  const laminar = Math.sqrt(entry2 + duct.frictionRootA * duct.frictionRootA) / reRootA;
  const turbulent = 0.0791 / Math.sqrt(Math.sqrt(reynolds));
  const share = turbulent / laminar;
  const s2 = share * share;
  const s4 = s2 * s2;
  return laminar * Math.sqrt(Math.sqrt(Math.sqrt(1 + s4 * s4)));
}

const PRANDTL_BEND = 1.664 ** 4.5;
/** ln of 2 · 0.564. */
const LN_PLATE = Math.log(2 * 0.564);

/**
 * Mean Nusselt number of simultaneously developing laminar flow in a rectangular duct at uniform wall temperature, on the
 * hydraulic diameter.
 *
 * `Nu_√A = [(2 f(Pr)/√z*)^m + ((1.5·0.409 (f·Re_√A/z*)^⅓)^5 + Nu_fd^5)^(m/5)]^(1/m)`, `m = 2.27 + 1.65 Pr^⅓`,
 * `z* = L / (√A Re_√A Pr)`, `f(Pr) = 0.564 / [1 + (1.664 Pr^(1/6))^4.5]^(2/9)`. The fully developed asymptote is the exact
 * duct's (Shah & London) instead of the model's general one, which lies up to 9 % off it.
 *
 * @param duct the passage
 * @param reynolds Reynolds number on the hydraulic diameter, > 0
 * @param prandtl Prandtl number, 0.1 < Pr
 * Source: Muzychka & Yovanovich, J. Heat Transfer 126 (2004) 54–61; from memory.
 */
export function laminarMeanNusselt(duct: Duct, reynolds: number, prandtl: number): number {
  const zStar = duct.lengthOverRootA / (reynolds * duct.toRootA * prandtl);
  const third = Math.cbrt(prandtl);
  const m = 2.27 + 1.65 * third;
  // (1.664 Pr^(1/6))^4.5
  const bent = PRANDTL_BEND * third * third * Math.sqrt(Math.sqrt(third));
  // powers by their logarithms, which take half the time
  const boundaryLayer = m * (LN_PLATE - (2 / 9) * Math.log(1 + bent) - 0.5 * Math.log(zStar));
  const leveque = 1.5 * 0.409 * Math.cbrt(duct.frictionRootA / zStar);
  const l2 = leveque * leveque;
  const n = duct.nusseltRootA;
  const n2 = n * n;
  const inner = (m / 5) * Math.log(l2 * l2 * leveque + n2 * n2 * n);
  const most = Math.max(boundaryLayer, inner);
  const other = Math.exp(Math.min(boundaryLayer, inner) - most);
  return Math.exp((most + Math.log(1 + other)) / m) / duct.toRootA;
}

/**
 * Nusselt number of turbulent duct flow on the hydraulic diameter.
 *
 * `Nu = (f/8)(Re − 1000) Pr / (1 + 12.7 √(f/8) (Pr^⅔ − 1))`, `f = (0.79 ln Re − 1.64)^−2`
 *
 * @param reynolds 3000 < Re < 5e6
 * @param prandtl 0.5 < Pr < 2000
 * Source: Gnielinski 1976 with Petukhov's friction; Incropera et al., eqs. 8.21 and 8.62; from memory.
 */
export function gnielinski(reynolds: number, prandtl: number): number {
  const f = Math.pow(0.79 * Math.log(reynolds) - 1.64, -2) / 8;
  return (
    (f * (reynolds - 1000) * prandtl) / (1 + 12.7 * Math.sqrt(f) * (Math.pow(prandtl, 2 / 3) - 1))
  );
}

/**
 * Mean Nusselt number between two fins in any regime: laminar up to Re 2300, turbulent from 4000, straight between.
 *
 * @param duct the passage
 * @param reynolds Reynolds number on the hydraulic diameter, 0 < Re ≤ 1e5
 * @param prandtl Prandtl number
 * Source: {@link laminarMeanNusselt}; {@link gnielinski}; transition after Gnielinski, Int. J. Heat Mass Transfer 63 (2013)
 * 134–140; from memory.
 */
export function ductMeanNusselt(duct: Duct, reynolds: number, prandtl: number): number {
  if (reynolds <= LAMINAR_END) return laminarMeanNusselt(duct, reynolds, prandtl);
  if (reynolds >= TURBULENT_START) return gnielinski(reynolds, prandtl);
  const w = (reynolds - LAMINAR_END) / (TURBULENT_START - LAMINAR_END);
  return (
    (1 - w) * laminarMeanNusselt(duct, LAMINAR_END, prandtl) +
    w * gnielinski(TURBULENT_START, prandtl)
  );
}
