/** What flows along pipes between two parts that they pass one after the other. */
export interface HeatWay {
  from: string;
  to: string;
  /** From the first to the second, W; all pipes between them together. */
  watts: number;
}

/**
 * Heat between neighbouring parts along one pipe: what entered before flows on.
 *
 * @param along what each part gives to the pipe, W, in order
 * @returns one less than there are parts
 * @example waysOfPipe([{ part: 'plate', watts: 30 }, { part: 'fins', watts: -30 }]) // [{ from: 'plate', to: 'fins', watts: 30 }]
 */
export function waysOfPipe(along: readonly { part: string; watts: number }[]): HeatWay[] {
  let flow = 0;
  return along.slice(0, -1).map((a, i) => {
    flow += a.watts;
    return { from: a.part, to: along[i + 1]!.part, watts: flow };
  });
}

/**
 * The same of several pipes, those between the same two parts together; each way from where the heat comes.
 *
 * @param pipes ways of each pipe
 */
export function heatWays(pipes: readonly (readonly HeatWay[])[]): HeatWay[] {
  const sums = new Map<string, HeatWay>();
  for (const { from, to, watts } of pipes.flat()) {
    const [a, b, sign] = from < to ? [from, to, 1] : [to, from, -1];
    const key = `${a}\n${b}`;
    const sum = sums.get(key) ?? { from: a, to: b, watts: 0 };
    sums.set(key, { ...sum, watts: sum.watts + sign * watts });
  }
  return [...sums.values()].map((w) =>
    w.watts >= 0 ? w : { from: w.to, to: w.from, watts: -w.watts },
  );
}
