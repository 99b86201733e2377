/** In which units a report speaks; watts, decibels and kelvins of difference are the same in all. */
export const UNIT_SYSTEMS = ['metric', 'imperial', 'both'] as const;
export type UnitSystem = (typeof UNIT_SYSTEMS)[number];

type Kind = 'length' | 'mass' | 'temperature' | 'altitude';

const METRIC: Readonly<Record<Kind, (x: number) => string>> = {
  length: (mm) => `${fixed(mm, 1)} mm`,
  mass: (kg) => `${fixed(kg, 2)} kg`,
  temperature: (c) => `${fixed(c, 1)} °C`,
  altitude: (m) => `${fixed(m, 0)} m`,
};
const IMPERIAL: Readonly<Record<Kind, (x: number) => string>> = {
  length: (mm) => `${fixed(mm / 25.4, 2)} in`,
  mass: (kg) => `${fixed(kg / 0.45359237, 2)} lb`,
  temperature: (c) => `${fixed(c * 1.8 + 32, 1)} °F`,
  altitude: (m) => `${fixed(m / 0.3048, 0)} ft`,
};

const fixed = (x: number, digits: number): string => Number(x.toFixed(digits)).toString();

/**
 * A quantity in words. Inch, pound and foot are exact (international yard and pound, 1959).
 *
 * @param kind what it is
 * @param x in mm, kg, °C or m
 */
export function quantity(kind: Kind, x: number, system: UnitSystem): string {
  if (system === 'metric') return METRIC[kind](x);
  if (system === 'imperial') return IMPERIAL[kind](x);
  return `${METRIC[kind](x)} (${IMPERIAL[kind](x)})`;
}
