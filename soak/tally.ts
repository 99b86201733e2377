/** What a program acknowledged, and what became of it. */
export interface Tally {
  requests: number;
  /** Those whose answer began. */
  answered: number;
  /** Requests by what they were. */
  acts: Record<string, number>;
  /** Writes that were refused, since somebody else had written meanwhile. */
  conflicts: number;
  /** The program was killed while they were under way, or was not there yet. */
  unanswered: number;
  /** Answers that no request should have. */
  wrong: string[];
  kills: number;
  /** Restores that were killed, and what was found after: the library before or after, whole. */
  restores: { before: number; after: number };
  acknowledged: number;
  /** What was acknowledged and is not there, or is another. */
  lost: string[];
  /** Waiting times for the health of the program, ms. */
  probesMs: number[];
  memoryMb: { rest: number; most: number };
}

export const emptyTally = (): Tally => ({
  requests: 0,
  answered: 0,
  acts: {},
  conflicts: 0,
  unanswered: 0,
  wrong: [],
  kills: 0,
  restores: { before: 0, after: 0 },
  acknowledged: 0,
  lost: [],
  probesMs: [],
  memoryMb: { rest: NaN, most: 0 },
});

const at = (values: readonly number[], share: number) => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN;
};

/** The table of a soak, as Markdown. */
export function tallyTable(tally: Tally): string {
  const { memoryMb, probesMs } = tally;
  const rows: [string, string | number][] = [
    ['requests', tally.requests],
    ...Object.entries(tally.acts)
      .sort(([a], [b]) => a.localeCompare(b))
      .map(([act, n]): [string, number] => [`of these: ${act}`, n]),
    ['writes refused, since somebody else was faster', tally.conflicts],
    ['kills', tally.kills],
    ['requests that a kill left unanswered', tally.unanswered],
    ['answers that should not be', tally.wrong.length],
    [
      'restores killed: the library before, the library after',
      `${tally.restores.before}, ${tally.restores.after}`,
    ],
    ['acknowledged and looked for', tally.acknowledged],
    ['**of these lost**', `**${tally.lost.length}**`],
    ['wait for health, median, ms', at(probesMs, 0.5).toFixed(0)],
    ['wait for health, 99 %, ms', at(probesMs, 0.99).toFixed(0)],
    ['wait for health, longest, ms', at(probesMs, 1).toFixed(0)],
    ['memory at rest, MB', memoryMb.rest.toFixed(0)],
    ['memory, most over rest, MB', (memoryMb.most - memoryMb.rest).toFixed(0)],
  ];
  return ['| what | how many |', '| --- | ---: |', ...rows.map(([k, v]) => `| ${k} | ${v} |`)].join(
    '\n',
  );
}
