import { parseArgs } from 'node:util';
import { estimate } from '@zugluft/core/case/estimate';
import { openCase, UnknownSettingError } from '@zugluft/core/case/openCase';
import { planDraws, type DrawPlan } from '@zugluft/core/uncertainty/drawPlan';
import { roomForDraws, runDraws } from '@zugluft/core/uncertainty/draws';
import { summarise, withBands } from '@zugluft/core/uncertainty/summary';
import type { DrawJob, DrawnByThreads } from './drawInThreads';
import { BadInput } from './badInput';
import { capsOption, wholeOption } from './options';
import { MAX_ROWS, recordOfFile } from './recordFile';

const USAGE =
  'usage: npm run --silent estimate -- FILE [--caps off,28,32,36,40,45,full] [--setting ID] [--draws N] [--seed 1] [--row N]';
const MAX_DRAWS = 100_000;
const MOST_CAPS = 50;

/** Makes all draws of a plan. */
export type Draw = (
  plan: DrawPlan,
  job: Pick<DrawJob, 'request' | 'options'>,
) => Promise<DrawnByThreads>;

const drawHere: Draw = async (plan) => {
  const drawn = roomForDraws(plan, plan.draws);
  const unsettled = runDraws(plan, 0, plan.draws, drawn);
  return { ...drawn, unsettled };
};

/**
 * The estimate command.
 *
 * @param argv words after the command's name
 * @param draw makes the draws; in this thread by default
 * @returns the JSON document for stdout, lines for stderr, and the exit code
 */
export async function run(
  argv: readonly string[],
  draw: Draw = drawHere,
): Promise<{ stdout: string; stderr: string[]; code: number }> {
  const stderr: string[] = [];
  try {
    let parsed;
    try {
      parsed = parseArgs({
        args: [...argv],
        allowPositionals: true,
        options: {
          caps: { type: 'string' },
          setting: { type: 'string' },
          draws: { type: 'string' },
          seed: { type: 'string' },
          row: { type: 'string' },
        },
      });
    } catch (cause) {
      stderr.push(USAGE);
      throw new BadInput('', (cause as Error).message);
    }
    const { values, positionals } = parsed;
    const [file, ...more] = positionals;
    if (file === undefined || more.length) {
      stderr.push(USAGE);
      throw new BadInput('', 'needs one record file');
    }
    const caps =
      values.caps === undefined ? undefined : capsOption('--caps', values.caps, MOST_CAPS);
    const seed = wholeOption('--seed', values.seed, 0, 2 ** 32 - 1) ?? 1;
    const draws = wholeOption('--draws', values.draws, 0, MAX_DRAWS) ?? 0;
    const record = recordOfFile(file, wholeOption('--row', values.row, 0, MAX_ROWS));
    const request = { record, setting: values.setting };
    const open = openCase(request);
    const result = estimate(open, { caps });
    for (const n of result.notes) stderr.push(`${n.path}: ${n.message}`);
    if (!draws) return { stdout: JSON.stringify(result), stderr, code: 0 };
    const job = { request, options: { caps, draws, seed } };
    const plan = planDraws(open, job.options);
    const drawn = await draw(plan, job);
    const summary = summarise(plan, drawn, drawn.unsettled);
    const { fits, next } = summary;
    return {
      stdout: JSON.stringify({ ...withBands(result, summary), draws, seed, fits, next }),
      stderr,
      code: 0,
    };
  } catch (cause) {
    if (cause instanceof BadInput || cause instanceof UnknownSettingError) {
      const path = cause instanceof BadInput ? cause.path : 'settings';
      return {
        stdout: JSON.stringify({ error: { path, message: cause.message } }),
        stderr,
        code: 2,
      };
    }
    throw cause;
  }
}
