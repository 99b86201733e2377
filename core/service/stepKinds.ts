import type { GoalId } from './goals';
import type { StepKind } from './openUpLog';

export interface StepKindFacts {
  act: StepKind;
  /** What a step of it is called where nobody says otherwise. */
  name: string;
  /** What it is called on the way back; null where nothing is put back by it. */
  back: string | null;
  reaches: readonly GoalId[];
  tools: readonly string[];
  consumables: readonly string[];
  /** Words of a step's name by which it is known. */
  known: RegExp;
}

/** What steps of an opening are about, in the usual order. Common practice, no source. */
export const STEP_KIND_FACTS: readonly StepKindFacts[] = [
  fact(
    'make-safe',
    'Shut down, unplug, touch bare metal',
    null,
    /shut ?down|unplug|make safe|discharge/i,
  ),
  fact(
    'cover',
    'Base cover off',
    'Base cover on',
    /cover|hatch/i,
    [],
    ['screwdriver', 'suction cup'],
  ),
  fact(
    'battery-out',
    'Battery out',
    'Battery in',
    /battery (out|off the)\b|battery.*(swap|lift|remov)|swap.*battery/i,
    ['swap-battery'],
  ),
  fact('battery', 'Battery plug out', 'Battery plug in, the last before the cover', /battery/i, [
    'battery-off',
  ]),
  fact('plugs', 'Fan plugs out', 'Fan plugs in', /fans?.? plug|plugs? of/i),
  fact(
    'leads',
    'Display cable and antenna leads off',
    'Display cable and antenna leads on',
    /display cable|antenna|lead/i,
    ['display-cable'],
  ),
  fact(
    'card',
    'Memory, storage or wireless card out',
    'Memory, storage or wireless card in',
    /memory|storage|card|drive/i,
    ['memory-storage'],
  ),
  fact('strip', 'Strip lifted', null, /strip|tape|film/i),
  fact(
    'fan-out',
    'Fan out',
    'Fan in',
    /fan.*(out|off|replace)|replace.*fan/i,
    ['replace-fan'],
    ['screwdriver'],
  ),
  fact('clean', 'Fins and fans cleaned', null, /clean|brush|blow|lint|dust/i, ['clean-fans']),
  fact(
    'renew',
    'Interface material renewed',
    null,
    /paste|interface material/i,
    ['renew-interface'],
    [],
    ['interface material', 'isopropyl alcohol, at least 98 %', 'lint-free towel'],
  ),
  fact('pads', 'Pads renewed', null, /pads?\b/i, [], [], ['pads']),
  fact(
    'sink',
    'Heat sink lifted with a twist',
    'Heat sink set down',
    /heat ?sink|cooler/i,
    [],
    ['screwdriver'],
  ),
  fact('jack', 'Power jack reached', 'Power jack back', /jack/i, ['power-jack']),
  fact('board', 'Board out', 'Board in', /board/i, ['board'], ['screwdriver']),
  fact(
    'layer',
    'Next layer off',
    'Layer on',
    /frame|keyboard|palm|layer|bar/i,
    [],
    ['screwdriver'],
  ),
  fact('other', 'Other step', 'Undo the other step', /(?!)/),
];

function fact(
  act: StepKind,
  name: string,
  back: string | null,
  known: RegExp,
  reaches: readonly GoalId[] = [],
  tools: readonly string[] = [],
  consumables: readonly string[] = [],
): StepKindFacts {
  return { act, name, back, reaches, tools, consumables, known };
}

export const factsOfStepKind = (act: StepKind): StepKindFacts =>
  STEP_KIND_FACTS.find((a) => a.act === act)!;

/** What a step is about: as it was said, else by its name. */
export const stepKindOf = (step: { act?: StepKind | undefined; name: string }): StepKind =>
  step.act ?? guessStepKind(step.name);

/** What a step is about, by the words of its name; renewing tells more than the part it is done to, so that it comes first. */
export function guessStepKind(name: string): StepKind {
  const fits = STEP_KIND_FACTS.filter((a) => a.known.test(name)).map((a) => a.act);
  for (const sure of ['battery-out', 'renew', 'clean', 'plugs', 'make-safe'] as const) {
    if (fits.includes(sure)) return sure;
  }
  return fits[0] ?? 'other';
}
