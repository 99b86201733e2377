import { readFileSync } from 'node:fs';
import { z } from 'zod';
import { capsOf } from '@zugluft/core/case/laboratory';
import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { applyChanges, ImpossibleChange } from '@zugluft/core/levers/applyChanges';
import type { Lever } from '@zugluft/core/levers/lever';
import { possibleLevers } from '@zugluft/core/levers/possibleLevers';
import { planDocument } from '@zugluft/core/levers/planDocument';
import type { Wanted } from '@zugluft/core/levers/splitWatts';
import type { Need } from '@zugluft/core/uncertainty/leastLevel';
import { answered, type Answered } from './answered';
import { BadInput } from './badInput';
import { calibrationOfRuns } from './calibrationOfRuns';
import { capsOption, drawOptions, MOST_CAPS, numberOption } from './options';
import { parsedWithRecord } from './parsed';
import { recordOfFile } from './recordFile';

const USAGE =
  'usage: npm run --silent plan -- RECORD.json [--cap 40 | --caps 32,40] [--setting ID] [--levers LEVERS.json] [--draws 400] [--seed 1] [--runs RUNS.zip] [--need CPU,GPU] [--weights A,B | --at-least-cpu W]';
const OPTIONS = {
  cap: { type: 'string' },
  caps: { type: 'string' },
  setting: { type: 'string' },
  levers: { type: 'string' },
  draws: { type: 'string' },
  seed: { type: 'string' },
  runs: { type: 'string' },
  need: { type: 'string' },
  weights: { type: 'string' },
  'at-least-cpu': { type: 'string' },
} as const;
const LARGEST_FILE = 1_000_000;

const leversFile = z.strictObject({
  levers: z
    .array(
      z.looseObject({
        id: z.string().min(1, 'needs a name').max(80, 'must be at most 80 characters'),
        name: z.string().max(200, 'must be at most 200 characters').optional(),
        change: z
          .array(z.strictObject({ path: z.string().min(1).max(200), to: z.unknown() }))
          .max(100, 'at most 100'),
      }),
    )
    .max(100, 'at most 100'),
  together: z.array(z.array(z.string()).min(1).max(20)).max(20, 'at most 20').optional(),
});

/**
 * The plan command: what would help a machine, by how much.
 *
 * @param argv words after the command's name
 * @param tell told of progress
 * @returns the JSON document for stdout, and the exit code
 */
export const run = (
  argv: readonly string[],
  tell: (line: string) => void = () => undefined,
): Promise<Answered> => answered(() => plan(argv, tell));

async function plan(argv: readonly string[], tell: (line: string) => void): Promise<object> {
  const { values: v, file } = parsedWithRecord(argv, OPTIONS, USAGE, tell);
  const drawn = drawOptions(v);
  const need = needOf(v.need);
  const wanted = wantedOf(v.weights, v['at-least-cpu']);
  const record = recordOfFile(file);
  const plain: CaseRequest = { record, setting: v.setting };
  const open = openCase(plain);
  const caps = capsFrom(v.cap, v.caps, capsOf(open.lab));
  const own = v.levers === undefined ? null : readLevers(v.levers);
  const levers = own ? own.levers : possibleLevers(record, v.setting);
  own?.levers.forEach((lever, i) => refuseImpossible(plain, lever, i));
  const ids = new Set(levers.map((l) => l.id));
  own?.together?.forEach((list, i) => {
    const unknown = list.find((id) => !ids.has(id));
    if (unknown !== undefined) {
      throw new BadInput(`--levers.together.${i}`, `there is no lever called “${unknown}”`);
    }
    const changes = list.flatMap((id) => levers.find((l) => l.id === id)!.change);
    try {
      applyChanges(record, changes, v.setting);
    } catch (cause) {
      if (!(cause instanceof ImpossibleChange)) throw cause;
      throw new BadInput(`--levers.together.${i}`, cause.message);
    }
  });
  if (need && !open.model.hasGpu && need.gpuW > 0) {
    throw new BadInput('--need', 'the machine has no GPU');
  }
  const calibration =
    v.runs === undefined ? null : (await calibrationOfRuns(v.runs, plain, tell)).calibration;
  return planDocument(
    { ...plain, calibration },
    {
      caps,
      ...drawn,
      levers,
      ...(own?.together ? { together: own.together } : {}),
      ...(need ? { need } : {}),
      ...(wanted ? { wanted } : {}),
      progress: (done, of) => tell(`${done} of ${of} levers`),
    },
  );
}

/** A lever that was asked for and cannot be is refused. */
function refuseImpossible({ record, setting }: CaseRequest, lever: Lever, at: number): void {
  try {
    applyChanges(record, lever.change, setting);
  } catch (cause) {
    if (!(cause instanceof ImpossibleChange)) throw cause;
    throw new BadInput(
      `--levers.levers.${at}.change.${cause.at}`,
      `${cause.path}: ${cause.message}`,
    );
  }
}

function readLevers(file: string): {
  levers: Lever[];
  together: string[][] | undefined;
} {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch (cause) {
    const code = (cause as NodeJS.ErrnoException).code ?? 'failed';
    throw new BadInput('--levers', `cannot read ${file}: ${code}`);
  }
  if (text.length > LARGEST_FILE) throw new BadInput('--levers', 'the file is larger than 1 MB');
  let json: unknown;
  try {
    json = JSON.parse(text.replace(/^\ufeff/, ''));
  } catch {
    throw new BadInput('--levers', 'the file is not well-formed JSON');
  }
  const read = leversFile.safeParse(json);
  if (!read.success) {
    const issue = read.error.issues[0]!;
    throw new BadInput(['--levers', ...issue.path.map(String)].join('.'), issue.message);
  }
  const ids = read.data.levers.map((l) => l.id);
  const twice = ids.findIndex((id, i) => ids.indexOf(id) !== i);
  if (twice >= 0) throw new BadInput(`--levers.levers.${twice}.id`, 'is taken already');
  const levers = read.data.levers.map(({ id, name, change }): Lever => {
    const isSetting = change.length > 0 && change.every((c) => /^setting(s\.|$)/.test(c.path));
    return {
      id,
      name: name ?? id,
      change: change.map(({ path, to }) => ({ path, to: to ?? null })),
      possible: true,
      whyNot: null,
      reversible: true,
      cautions: [],
      goal: null,
      moves: isSetting ? 'setting' : 'cooling',
    };
  });
  return { levers, together: read.data.together };
}

function capsFrom(
  one: string | undefined,
  several: string | undefined,
  usual: readonly Cap[],
): Cap[] {
  if (one !== undefined && several !== undefined) {
    throw new BadInput('--caps', '--cap and --caps exclude each other');
  }
  const text = one ?? several;
  if (text === undefined) return usual.filter((c) => typeof c === 'number');
  const caps =
    one === undefined ? capsOption('--caps', text, MOST_CAPS) : capsOption('--cap', text, 1);
  return [...new Set(caps)];
}

function pair(path: string, text: string, what: string): [number, number] {
  const numbers = text.split(',').map((x) => (x.trim() === '' ? NaN : Number(x)));
  if (numbers.length !== 2 || numbers.some((x) => !(x >= 0 && x <= 1000))) {
    throw new BadInput(path, `needs ${what}, two numbers from 0 to 1000`);
  }
  if (!(numbers[0]! + numbers[1]! > 0)) throw new BadInput(path, 'one of them must be above 0');
  return numbers as [number, number];
}

function needOf(text: string | undefined): Need | undefined {
  if (text === undefined) return undefined;
  const [cpuW, gpuW] = pair('--need', text, 'CPU and GPU watts');
  return { cpuW, gpuW };
}

function wantedOf(weights: string | undefined, least: string | undefined): Wanted | undefined {
  if (weights !== undefined && least !== undefined) {
    throw new BadInput('--at-least-cpu', '--weights and --at-least-cpu exclude each other');
  }
  if (weights !== undefined) {
    const [cpu, gpu] = pair('--weights', weights, 'the weights of CPU and GPU watts');
    return { cpu, gpu };
  }
  const atLeastCpuW = numberOption('--at-least-cpu', least, 0, 1000);
  return atLeastCpuW === undefined ? undefined : { atLeastCpuW };
}
