/** Which of several documents was changed when, so that undo takes back what was done last. */
export interface TurnOrder<D extends string> {
  past: readonly Turn<D>[];
  future: readonly Turn<D>[];
}

interface Turn<D> {
  of: D;
  touched: string | null;
  at: number;
}

/** Changes of one field in quick succession are one step of their document. */
const ONE_STEP_MS = 1200;
const MOST_TURNS = 300;

export const noTurns = <D extends string>(): TurnOrder<D> => ({ past: [], future: [] });

/** A change of a document; what could be done again is gone. */
export function changed<D extends string>(
  { past }: TurnOrder<D>,
  of: D,
  touched: string | null,
  at: number,
): TurnOrder<D> {
  const last = past.at(-1);
  const joins =
    touched !== null && last?.of === of && last.touched === touched && at - last.at < ONE_STEP_MS;
  const before = joins ? past.slice(0, -1) : past.slice(1 - MOST_TURNS);
  return { past: [...before, { of, touched, at }], future: [] };
}

/** The document of which a step is to be taken back, or done again; null where none was changed here. */
export function turn<D extends string>(
  { past, future }: TurnOrder<D>,
  back: boolean,
): { of: D; order: TurnOrder<D> } | null {
  const own = back ? past.at(-1) : future[0];
  if (!own) return null;
  return {
    of: own.of,
    order: back
      ? { past: past.slice(0, -1), future: [own, ...future] }
      : { past: [...past, own], future: future.slice(1) },
  };
}
