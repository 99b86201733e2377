import { DEFAULTS, type Default, type DefaultKey } from './defaults';
import { figureValue, type Figure } from './figure';

/** A default that an estimate used, with the path of the figure it stands for. */
export interface AssumedFigure {
  path: string;
  value: number;
  low: number;
  high: number;
}

/** What went into a case: a recorded figure, or a default with its range. Both may be drawn anew under the same path. */
export type CaseInput =
  | { path: string; value: number; recorded: Figure; key: DefaultKey | null }
  | { path: string; value: number; recorded: null; key: DefaultKey; low: number; high: number };

/** A lab's own defaults in place of the built-in ones. */
export type LabDefaults = Partial<
  Record<DefaultKey, { value: number; low: number; high: number; learned?: true | undefined }>
>;

/**
 * Values in the order in which a record's figures are asked for, which is the same every time: for the many cases of a
 * sampling, where looking each one up by its path would take longer than solving. NaN: the figure as it is.
 */
export interface ValuesInOrder {
  drawn: Float64Array;
  next: number;
}

/** Values that stand in for recorded figures and defaults alike (draws, fits), by path or in order. */
export type Overrides = ReadonlyMap<string, number> | ValuesInOrder;

/** Takes figures from a record or from the defaults and remembers which. */
export interface Resolver {
  /**
   * A recorded figure, else the default times a scale (for defaults that are shares of another figure). The path names
   * parts by id.
   */
  figure(path: string, figure: Figure | undefined, key: DefaultKey, scale?: number): number;
  /**
   * A default that is no field of the record, such as an in-situ factor.
   *
   * @param kind where given, parts of different kinds have a factor each
   */
  factor(key: DefaultKey, kind?: string): number;
  /** A figure known to be there. */
  known(path: string, figure: Figure | undefined): number;
  /** A recorded figure, else a plain value that is exact. */
  optional(path: string, figure: Figure | undefined, otherwise: number): number;
  assumed: AssumedFigure[];
  inputs: CaseInput[];
  /** Paths in the order in which they were asked for, each time anew. */
  order: string[];
}

/**
 * Makes a resolver.
 *
 * @param overrides values by path, or in order
 * @param lab a lab's own defaults
 * @param silent true: nothing is remembered, for the many cases of a sampling
 */
export function createResolver(
  overrides?: Overrides,
  lab: LabDefaults = {},
  silent = false,
): Resolver {
  const assumed: AssumedFigure[] = [];
  const inputs: CaseInput[] = [];
  const order: string[] = [];
  const seen = new Set<string>();
  const byPath = overrides && !('drawn' in overrides) ? overrides : null;
  const inOrder = overrides && 'drawn' in overrides ? overrides : null;
  /** The value that stands in for a figure, undefined where none does. */
  const drawn = (path: string, key?: string): number | undefined => {
    if (inOrder) {
      const value = inOrder.drawn[inOrder.next++]!;
      return value === value ? value : undefined;
    }
    if (!silent) order.push(path);
    return byPath?.get(path) ?? (key === undefined ? undefined : byPath?.get(key));
  };
  const defaultOf = (key: DefaultKey) => lab[key] ?? (DEFAULTS[key] as Default);
  const note = (path: string, value: number, key: DefaultKey, scale: number) => {
    if (silent || seen.has(path)) return;
    seen.add(path);
    const d = defaultOf(key);
    const low = d.low * scale;
    const high = d.high * scale;
    assumed.push({ path, value, low, high });
    inputs.push({ path, value, recorded: null, key, low, high });
  };
  const take = (path: string, figure: Figure, value: number, key: DefaultKey | null) => {
    if (!silent && !seen.has(path)) {
      seen.add(path);
      inputs.push({ path, value, recorded: figure, key });
    }
    return drawn(path) ?? value;
  };
  return {
    assumed,
    inputs,
    order,
    figure(path, figure, key, scale = 1) {
      const recorded = figureValue(figure);
      if (recorded !== undefined) return take(path, figure!, recorded, key);
      const value = drawn(path) ?? defaultOf(key).value * scale;
      note(path, value, key, scale);
      return value;
    },
    factor(key, kind) {
      const path = kind === undefined ? key : `${key}.${kind}`;
      const value = drawn(path, key) ?? defaultOf(key).value;
      note(path, value, key, 1);
      return value;
    },
    known(path, figure) {
      const recorded = figureValue(figure);
      if (recorded === undefined) throw new Error(`${path} needs a number`);
      return take(path, figure!, recorded, null);
    },
    optional(path, figure, otherwise) {
      const recorded = figureValue(figure);
      return recorded === undefined ? otherwise : take(path, figure!, recorded, null);
    },
  };
}
