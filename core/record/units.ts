/** Quantities that can be typed in several units, by the unit in which the record holds them. */
interface Scale {
  factor: number;
  /** Added after the factor, for temperatures. */
  offset?: number;
}

const LENGTH: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  µm: 1e-3,
  um: 1e-3,
  in: 25.4,
  inch: 25.4,
  inches: 25.4,
  '"': 25.4,
  '″': 25.4,
  mil: 0.0254,
  ft: 304.8,
  "'": 304.8,
};

const scaled = (units: Record<string, number>, by: number): Record<string, Scale> =>
  Object.fromEntries(Object.entries(units).map(([u, f]) => [u, { factor: f / by }]));

/** Exact by definition (inch, foot, pound, ounce: international yard and pound agreement, 1959). */
const SCALES: Record<string, Record<string, Scale>> = {
  mm: scaled(LENGTH, 1),
  µm: scaled(LENGTH, 1e-3),
  m: scaled({ ...LENGTH, km: 1e6 }, 1000),
  kg: scaled({ kg: 1, g: 1e-3, lb: 0.45359237, lbs: 0.45359237, oz: 0.028349523125 }, 1),
  '°C': {
    '°c': { factor: 1 },
    c: { factor: 1 },
    '°f': { factor: 5 / 9, offset: -160 / 9 },
    f: { factor: 5 / 9, offset: -160 / 9 },
    k: { factor: 1, offset: -273.15 },
  },
  K: { k: { factor: 1 }, c: { factor: 1 }, f: { factor: 5 / 9 } },
  W: scaled({ w: 1, mw: 1e-3, kw: 1000 }, 1),
  'W/mK': scaled({ 'w/mk': 1, 'w/m·k': 1, 'w/(mk)': 1, 'w/(m·k)': 1 }, 1),
  rpm: scaled({ rpm: 1, krpm: 1000, '1/min': 1, hz: 60 }, 1),
  s: scaled({ s: 1, sec: 1, min: 60, h: 3600 }, 1),
  years: scaled({ years: 1, year: 1, y: 1, months: 1 / 12, month: 1 / 12, weeks: 7 / 365.25 }, 1),
  '°': scaled({ '°': 1, deg: 1 }, 1),
  'L/s': scaled(
    {
      'l/s': 1,
      'l/min': 1 / 60,
      'm3/h': 1 / 3.6,
      'm³/h': 1 / 3.6,
      cfm: 0.028316846592 / 0.06,
    },
    1,
  ),
  Pa: scaled({ pa: 1, mmh2o: 9.80665, inh2o: 249.08891, hpa: 100 }, 1),
  'dB(A)': scaled({ 'db(a)': 1, dba: 1, db: 1 }, 1),
  share: scaled({ '%': 0.01 }, 1),
  count: {},
};

/**
 * A value in the record's unit.
 *
 * @param value as typed
 * @param typed its unit as typed, case and spaces do not matter
 * @param unit the record's unit, `share` for shares
 * @param step true: a difference such as a ±, without offset
 * @returns undefined where the unit does not belong to the quantity
 * @example toRecordUnit(0.3, 'in', 'mm') // 7.62
 */
export function toRecordUnit(
  value: number,
  typed: string,
  unit: string,
  step = false,
): number | undefined {
  const scale = SCALES[unit]?.[typed.replace(/\s+/g, '').toLowerCase()];
  if (!scale) return undefined;
  return tidy(value * scale.factor + (step ? 0 : (scale.offset ?? 0)));
}

/** Units that may be typed for a quantity. */
export function unitsFor(unit: string): string[] {
  return Object.keys(SCALES[unit] ?? {});
}

/** Without the last binary digits that a conversion leaves. */
export function tidy(value: number): number {
  return Number(value.toPrecision(10));
}

/** The units in which figures are shown and plain numbers are read; the record itself never changes. */
export interface UnitPreference {
  length: 'mm' | 'in';
  temperature: '°C' | '°F';
  altitude: 'm' | 'ft';
}

export const METRIC: UnitPreference = { length: 'mm', temperature: '°C', altitude: 'm' };

/** The unit in which a figure of the record is shown. */
export function shownUnit(unit: string, preference: UnitPreference): string {
  if (unit === 'mm') return preference.length;
  if (unit === '°C') return preference.temperature;
  if (unit === 'm') return preference.altitude;
  return unit;
}

/** A value of the record in the unit in which it is shown. */
export function toShown(value: number, unit: string, preference: UnitPreference): number {
  const shown = shownUnit(unit, preference);
  if (shown === unit) return value;
  if (shown === '°F') return tidy((value * 9) / 5 + 32);
  return tidy(value / (shown === 'in' ? 25.4 : 0.3048));
}

/** A difference in the unit in which it is shown: a ±, or kelvins as degrees of the other scale. */
export function toShownStep(value: number, unit: string, preference: UnitPreference): number {
  const shown = shownUnit(unit, preference);
  return shown === '°F' ? tidy((value * 9) / 5) : toShown(value, unit, preference);
}
