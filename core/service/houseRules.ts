import { z } from 'zod';
import type { CautionId } from './cautions';
import type { StepKind } from './openUpLog';

interface Choice {
  id: string;
  name: string;
  /** What it says at a step of these kinds. */
  words: string;
  caution?: CautionId;
  tools?: readonly string[];
}

/** Where workshops differ; a lab follows one school in each. Common practice, no source; the first choice is the default. */
export const RULES = [
  {
    id: 'battery',
    question: 'The battery, once the cover is off',
    acts: ['battery'],
    choices: [
      { id: 'unplug', name: 'unplug only', words: 'Unplug it; it may stay in its place.' },
      {
        id: 'take-out',
        name: 'take it out',
        words: 'Unplug it, then take it out before going on.',
      },
    ],
  },
  {
    id: 'lever',
    question: 'Opening with',
    acts: ['cover', 'layer'],
    choices: [
      {
        id: 'plastic',
        name: 'plastic only',
        words: 'Plastic lever or pick only; what resists still has a screw in it.',
        tools: ['plastic lever'],
      },
      {
        id: 'thin-metal',
        name: 'thin metal in the corner',
        words:
          'Thin metal to start the corner, then plastic; what resists still has a screw in it.',
        caution: 'metal-lever',
        tools: ['thin metal lever', 'plastic lever'],
      },
    ],
  },
  {
    id: 'screws',
    question: 'Screws on the bench',
    acts: ['cover', 'layer', 'sink', 'board'],
    choices: [
      { id: 'trays', name: 'trays by group', words: 'Each group into its own tray.' },
      { id: 'beside', name: 'each beside its hole', words: 'Lay each screw beside its hole.' },
      {
        id: 'pile',
        name: 'one pile but for the odd ones',
        words: 'One pile; odd screws apart and marked.',
      },
    ],
  },
  {
    id: 'tightening',
    question: 'Tightening',
    acts: [],
    choices: [
      { id: 'printed', name: 'printed numbers, else crosswise', words: '' },
      { id: 'crosswise', name: 'always crosswise', words: '' },
    ],
  },
  {
    id: 'strips',
    question: 'Strips in the air path',
    acts: ['strip', 'clean'],
    choices: [
      {
        id: 'leave',
        name: 'leave them',
        words: 'Strips stay; they may seal the duct. Both states can be computed.',
      },
      {
        id: 'lift',
        name: 'lift those of known purpose',
        words:
          'Lift strips whose purpose is known, and put them back unless measured better without.',
      },
    ],
  },
  {
    id: 'cleaning',
    question: 'Cleaning',
    acts: ['clean'],
    choices: [
      {
        id: 'both',
        name: 'brush first, then air',
        words: 'Brush first, then air from the outlet side.',
        caution: 'compressed-air',
        tools: ['soft brush', 'compressed air'],
      },
      {
        id: 'air',
        name: 'compressed air',
        words: 'Air in short bursts, fans held.',
        caution: 'compressed-air',
        tools: ['compressed air'],
      },
      {
        id: 'brush',
        name: 'brush and vacuum',
        words: 'Soft brush and a vacuum that does not charge up.',
        caution: 'static',
        tools: ['soft brush', 'vacuum'],
      },
    ],
  },
  {
    id: 'paste',
    question: 'Interface material',
    acts: ['renew'],
    choices: [
      {
        id: 'by-gain',
        name: 'by the watts it gains here',
        words: 'Take what the estimate says is worth it for this machine.',
      },
      {
        id: 'premium',
        name: 'always the best',
        words: 'Always the best that may touch this metal.',
      },
    ],
  },
  {
    id: 'pads',
    question: 'Pads',
    acts: ['pads', 'sink'],
    choices: [
      {
        id: 'keep-moist',
        name: 'keep while moist',
        words: 'Pads still moist may stay; write down their state.',
      },
      { id: 'new', name: 'always new', words: 'New pads of the same thickness every time.' },
    ],
  },
  {
    id: 'seals',
    question: 'Warranty seals',
    acts: ['cover'],
    choices: [
      {
        id: 'note',
        name: 'write them down',
        words: 'Write down a seal before it is broken. What that means depends on the country.',
        caution: 'seal',
      },
      {
        id: 'ask',
        name: 'ask the owner first',
        words: 'Ask the owner before a seal is broken. What that means depends on the country.',
        caution: 'seal',
      },
    ],
  },
  {
    id: 'settings',
    question: 'After the first start',
    acts: [],
    choices: [
      { id: 'check', name: 'check clock and firmware settings', words: '' },
      { id: 'trust', name: 'bench at once', words: '' },
    ],
  },
] as const satisfies readonly {
  id: string;
  question: string;
  acts: readonly StepKind[];
  choices: readonly Choice[];
}[];

type Rule = (typeof RULES)[number];
export type HouseRules = { [R in Rule as R['id']]: R['choices'][number]['id'] };

/** Questions on which Zugluft takes no side, since it computes or records both. */
export const NO_RULE_NEEDED = [
  ['How to estimate cooling', 'counted, computed and measured stand side by side'],
  ['Shared or separate pipe loops', 'both effects are computed'],
] as const;

const choiceOf = <R extends Rule>(rule: R) =>
  z.enum(rule.choices.map((c) => c.id) as [string, ...string[]]).default(rule.choices[0].id);

export const houseRules = z.strictObject(
  Object.fromEntries(RULES.map((r) => [r.id, choiceOf(r)])),
) as unknown as z.ZodType<HouseRules>;

export const DEFAULT_RULES: HouseRules = houseRules.parse({});

/** What the house's rules say at a step of a kind: words, cautions and tools. */
export function rulesAt(
  act: StepKind,
  rules: HouseRules,
): { words: string[]; cautions: CautionId[]; tools: string[] } {
  const chosen = RULES.filter((r) => (r.acts as readonly StepKind[]).includes(act)).map(
    (r) => r.choices.find((c) => c.id === rules[r.id]) as Choice,
  );
  return {
    words: chosen.map((c) => c.words).filter(Boolean),
    cautions: chosen.flatMap((c) => c.caution ?? []),
    tools: chosen.flatMap((c) => c.tools ?? []),
  };
}
