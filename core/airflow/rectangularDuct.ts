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

/** A passage between two fins. */
export interface Duct {
  gapM: number;
  heightM: number;
  lengthM: number;
}

const TURBULENT_BLEND = 8;

/**
 * Apparent Fanning friction factor of developing flow in a rectangular duct, blended into turbulent flow.
 *
 * Laminar: `f·Re_√A = √[(3.44/√z⁺)² + (f·Re_fd)²]`, `z⁺ = L / (√A · Re_√A)`, with the fully developed value of the exact
 * duct. Turbulent: Blasius, `0.0791 Re^−0.25`. Blend: eighth-power mean of both, so that the greater one rules.
 *
 * @param duct gap, height and length in metres, all > 0
 * @param reynolds Reynolds number on the hydraulic diameter, > 0
 * Source: Muzychka & Yovanovich, J. Fluids Eng. 131 (2009) 041105; Shah & London 1978; from memory.
 */
export function ductApparentFriction(duct: Duct, reynolds: number): number {
  const { gapM, heightM, lengthM } = duct;
  const rootA = Math.sqrt(gapM * heightM);
  const dh = (2 * gapM * heightM) / (gapM + heightM);
  const aspect = Math.min(gapM, heightM) / Math.max(gapM, heightM);
  const reRootA = (reynolds * rootA) / dh;
  const zPlus = lengthM / (rootA * reRootA);
  const developed = (ductFrictionRe(aspect) * rootA) / dh;
  const entry = 3.44 / Math.sqrt(zPlus);
  const laminar = Math.sqrt(entry * entry + developed * developed) / reRootA;
  const turbulent = 0.0791 * Math.pow(reynolds, -0.25);
  return Math.pow(
    Math.pow(laminar, TURBULENT_BLEND) + Math.pow(turbulent, TURBULENT_BLEND),
    1 / TURBULENT_BLEND,
  );
}

/**
 * Mean Nusselt number of simultaneously developing laminar flow in a rectangular duct at uniform wall temperature,
 * on the hydraulic diameter, with the turbulent value of Gnielinski's form above transition.
 *
 * `Nu_√A = [(2 f(Pr)/√z*)^m + ((1.5·0.409 (f·Re_√A/z*)^⅓)^5 + Nu_fd^5)^(m/5)]^(1/m)`, `m = 2.27 + 1.65 Pr^⅓`,
 * `z* = L / (√A Re_√A Pr)`, `f(Pr) = 0.564 / [1 + (1.664 Pr^(1/6))^4.5]^(2/9)`. The fully developed asymptote is the exact
 * duct's (Shah & London) instead of the model's general one, which lies up to 9 % off it.
 *
 * @param duct gap, height and length in metres, all > 0
 * @param reynolds Reynolds number on the hydraulic diameter, > 0
 * @param prandtl Prandtl number, 0.1 < Pr
 * Source: Muzychka & Yovanovich, J. Heat Transfer 126 (2004) 54–61; from memory.
 */
export function ductMeanNusselt(duct: Duct, reynolds: number, prandtl: number): number {
  const { gapM, heightM, lengthM } = duct;
  const rootA = Math.sqrt(gapM * heightM);
  const dh = (2 * gapM * heightM) / (gapM + heightM);
  const aspect = Math.min(gapM, heightM) / Math.max(gapM, heightM);
  const toRootA = rootA / dh;
  const reRootA = reynolds * toRootA;
  const zStar = lengthM / (rootA * reRootA * prandtl);
  const friction = ductFrictionRe(aspect) * toRootA;
  const developed = ductNusseltT(aspect) * toRootA;
  const m = 2.27 + 1.65 * Math.cbrt(prandtl);
  const fPr = 0.564 / Math.pow(1 + Math.pow(1.664 * Math.pow(prandtl, 1 / 6), 4.5), 2 / 9);
  const boundaryLayer = (2 * fPr) / Math.sqrt(zStar);
  const leveque = 1.5 * 0.409 * Math.cbrt(friction / zStar);
  const inner = Math.pow(Math.pow(leveque, 5) + Math.pow(developed, 5), m / 5);
  const laminar = Math.pow(Math.pow(boundaryLayer, m) + inner, 1 / m) / toRootA;
  if (reynolds <= 2300) return laminar;
  const f = Math.pow(0.79 * Math.log(reynolds) - 1.64, -2) / 8;
  const turbulent =
    (f * (reynolds - 1000) * prandtl) / (1 + 12.7 * Math.sqrt(f) * (Math.pow(prandtl, 2 / 3) - 1));
  return Math.max(laminar, turbulent);
}
