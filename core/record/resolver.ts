import { DEFAULTS, type Default, type DefaultKey } from './defaults';
import { figureValue, type Figure } from './figure';

/** A default that an estimate used, with the path of the figure it stands for. */
export interface AssumedFigure {
  path: string;
  value: number;
  low: number;
  high: number;
}

/** Takes figures from a record or from the defaults and remembers which. */
export interface Resolver {
  /**
   * A recorded figure, else the default times a scale (for defaults that are shares of another figure). The path names
   * parts by id.
   */
  figure(path: string, figure: Figure | undefined, key: DefaultKey, scale?: number): number;
  /** A default that is no field of the record, such as an in-situ factor. */
  factor(key: DefaultKey): number;
  /** A figure known to be there. */
  known(path: string, figure: Figure | undefined): number;
  assumed: AssumedFigure[];
}

/**
 * Makes a resolver.
 *
 * @param overrides values by path that stand in for recorded figures and defaults alike (lab overrides, draws, fits)
 */
export function createResolver(overrides?: ReadonlyMap<string, number>): Resolver {
  const assumed: AssumedFigure[] = [];
  const seen = new Set<string>();
  const note = (path: string, value: number, d: Default, scale: number) => {
    if (seen.has(path)) return;
    seen.add(path);
    assumed.push({ path, value, low: d.low * scale, high: d.high * scale });
  };
  return {
    assumed,
    figure(path, figure, key, scale = 1) {
      const recorded = figureValue(figure);
      const over = overrides?.get(path);
      if (recorded !== undefined) return over ?? recorded;
      const d: Default = DEFAULTS[key];
      const value = over ?? d.value * scale;
      note(path, value, d, scale);
      return value;
    },
    factor(key) {
      const d: Default = DEFAULTS[key];
      const value = overrides?.get(key) ?? d.value;
      note(key, value, d, 1);
      return value;
    },
    known(path, figure) {
      const recorded = figureValue(figure);
      if (recorded === undefined) throw new Error(`${path} needs a number`);
      return overrides?.get(path) ?? recorded;
    },
  };
}
