import { openingAct, openingMinutes, runAct } from '@zugluft/core/benchday/dayActs';
import { emptyDay, type Act } from '@zugluft/core/benchday/dayDocument';
import { orderDay } from '@zugluft/core/benchday/orderDay';
import { openCase } from '@zugluft/core/case/openCase';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { coolsDownInS, settledAfterS } from '@zugluft/core/runs/runTimes';
import type { Library } from '@zugluft/server/library';
import { demoLog } from './logs';

const BEGINS_AT = '2026-12-01T08:00:00.000Z';

/** What the co-operative does next, by words of the variant: a run, and whether the machine is opened. */
const PLAN: readonly [RegExp, 'cpu' | 'gpu' | 'both' | null, boolean][] = [
  [/vapor chamber/, 'both', false],
  [/thick and quiet/, 'both', true],
  [/separate loops/, 'gpu', true],
];

/** The next day on the bench of the co-operative, in order. */
export async function seedBenchDay(
  { documents }: Library,
  machines: readonly { id: string; record: CaseRecord }[],
): Promise<void> {
  const acts: Act[] = [];
  for (const [words, on, opened] of PLAN) {
    const found = machines.find(({ record }) => words.test(record.identity?.variant ?? ''));
    if (!found) continue;
    const { id, record } = found;
    const { maker, model } = record.identity ?? {};
    const of = (act: string) => ({
      id: `act-${acts.length + 1}-${act}`,
      machine: id,
      machineName: [maker, model].filter(Boolean).join(' '),
    });
    if (on) {
      const open = openCase({ record });
      const times = {
        settleS: settledAfterS(open, on, 'full'),
        coolsS: coolsDownInS(open, on, 'full'),
      };
      const run = { id: `demo-${acts.length + 1}`, load: { kind: 'stress' as const, on } };
      acts.push(runAct(of('run'), run, times, on === 'both' ? 'both, full speed' : 'GPU alone'));
    }
    if (opened) acts.push(openingAct(of('opening'), openingMinutes(demoLog(record))));
  }
  const { startMin } = orderDay(acts, { hands: 1 });
  await documents.write('day', LABORATORY, 0, {
    ...emptyDay(),
    beginsAt: BEGINS_AT,
    acts: acts.map((a) => ({ ...a, startMin: startMin[a.id] ?? null })),
  });
}
