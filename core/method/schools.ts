import { drawMachine, gainsOfChange, type GainOptions, type LeverGain } from '../levers/leverGains';
import { leversOf } from '../levers/leversOf';
import type { CaseRecord } from '../record/recordSchema';

/** The examples that the cases are made of. */
export interface SchoolExamples {
  twoFan: CaseRecord;
  oneDie: CaseRecord;
}

/** One side of what the trade argues over, worked on an invented machine. */
export interface SchoolCase {
  question: string;
  /** What one school says. */
  says: string;
  /** The machine on which it is right. */
  machine: string;
  record: (examples: SchoolExamples) => CaseRecord;
  lever: string;
  /** Loads in this ratio; that of the setting by default. */
  ratio?: { cpu: number; gpu: number };
  /** What comes of the lever there. */
  comes: 'gains' | 'loses' | 'is not felt';
}

const CAP = 36;
const OPTIONS: GainOptions = { caps: [CAP], draws: 80, seed: 3 };

const withPaste = (
  record: CaseRecord,
  paste: { conductivityWmK: number; bondLineUm: number; ageYears: number },
): CaseRecord => ({
  ...record,
  dies: record.dies!.map((d) => ({ ...d, interface: { ...d.interface, kind: 'paste', ...paste } })),
});

/** Every question of the trade whose both sides physics can judge (common practice, no source). */
export const SCHOOL_CASES: readonly SchoolCase[] = [
  {
    question: 'premium paste',
    says: 'makes no difference on a small heat sink',
    machine: 'one die, one pipe, fresh good paste',
    record: ({ oneDie }) => withPaste(oneDie, { conductivityWmK: 8, bondLineUm: 30, ageYears: 0 }),
    lever: 'premium-interface',
    comes: 'is not felt',
  },
  {
    question: 'premium paste',
    says: 'always helps',
    machine: 'two strong dies, thick dry paste of six years',
    record: ({ twoFan }) => withPaste(twoFan, { conductivityWmK: 2, bondLineUm: 80, ageYears: 6 }),
    lever: 'premium-interface',
    comes: 'gains',
  },
  {
    question: 'strips in the air path',
    says: 'come off, for more air',
    machine: 'a strip over 60 % of a rear vent, sealing nothing',
    record: ({ twoFan }) => ({
      ...twoFan,
      strips: [
        { id: 's', state: 'present', purpose: 'shielding', at: 'rear-left', coversShare: 0.6 },
      ],
    }),
    lever: 'remove-strip.s',
    comes: 'gains',
  },
  {
    question: 'strips in the air path',
    says: 'seal the duct and stay',
    machine: 'a strip that seals a fin stack and covers nothing',
    record: ({ twoFan }) => ({
      ...twoFan,
      strips: [
        {
          id: 's',
          state: 'present',
          purpose: 'duct-seal',
          at: twoFan.finStacks![0]!.id,
          coversShare: 0,
        },
      ],
    }),
    lever: 'remove-strip.s',
    comes: 'loses',
  },
  {
    question: 'shared or separate loops',
    says: 'shared: the busy die borrows the idle one’s pipes',
    machine: 'two dies on shared pipes, the CPU alone loaded',
    record: ({ twoFan }) => twoFan,
    lever: 'separate-loops',
    ratio: { cpu: 1, gpu: 0.02 },
    comes: 'loses',
  },
  {
    question: 'shared or separate loops',
    says: 'separate: each heats only itself',
    machine:
      'four pipes, a CPU held to 80 °C beside a GPU of four times its watts that may reach 95 °C',
    record: ({ twoFan }) => ({
      ...twoFan,
      heatPipes: twoFan.heatPipes!.map((p) => ({ ...p, count: 4 })),
      dies: twoFan.dies!.map((d) => ({ ...d, maxJunctionC: d.role === 'cpu' ? 80 : 95 })),
    }),
    lever: 'separate-loops',
    ratio: { cpu: 1, gpu: 4 },
    comes: 'gains',
  },
];

/** What the lever of a case brings. */
export function schoolGain(of: SchoolCase, examples: SchoolExamples): LeverGain {
  const record = of.record(examples);
  const lever = leversOf(record).find((l) => l.id === of.lever);
  if (!lever) throw new Error(`the machine has no lever ${of.lever}`);
  const before = drawMachine({ record }, OPTIONS, of.ratio);
  return gainsOfChange(before, lever, OPTIONS)[0]!;
}

const w = (x: number) =>
  Math.abs(x) < 0.05 ? '0.0' : `${x < 0 ? '−' : '+'}${Math.abs(x).toFixed(1)}`;

/** docs/schools.md: both sides of each question, worked. */
export function schoolsDocument(examples: SchoolExamples): string {
  const rows = SCHOOL_CASES.map((of) => {
    const { wattsGained: g, chanceNoticeable, tooSmallToFeel } = schoolGain(of, examples);
    const told =
      g.p95 < 0
        ? 'a loss'
        : tooSmallToFeel
          ? 'too small to feel'
          : `noticed in ${Math.round(100 * chanceNoticeable)} %`;
    return `| ${of.question} | ${of.says} | ${of.machine} | \`${of.lever}\` | ${w(g.p50)} (${w(g.p05)} to ${w(g.p95)}) | ${told} |`;
  });
  return `${[
    '# Both sides of the schools',
    '',
    `What the trade argues over, as far as physics can judge it: for each side an invented machine on which it is right. Watts of both dies`,
    `at ${CAP} dB(A), medians and 5–95 % of the difference over common draws. Written by \`npm run docs\`; a test computes them anew.`,
    '',
    '| question | school | machine | lever | watts gained | felt |',
    '|---|---|---|---|---|---|',
    ...rows,
    '',
    'A battery in or out is no figure of the cooling and changes nothing here; where it stands in the air path it is recorded as what it',
    'covers. Seals, levers of plastic or metal, the order of screws and how to clean are house rules, no physics.',
  ].join('\n')}\n`;
}
