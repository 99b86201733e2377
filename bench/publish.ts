import { performance } from 'node:perf_hooks';
import { compareMachines } from '@zugluft/core/compare/compareMachines';
import { countedOpinion, type CountedMachine } from '@zugluft/core/compare/countedOpinion';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { reportOf } from '@zugluft/core/report/report';
import { randomStream } from '@zugluft/core/uncertainty/random';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';
import { verdictOf } from '@zugluft/core/verdict/verdict';
import { reportPdf } from '@zugluft/publish/pdf';
import type { LoadRow } from './library';

const REPEATS = 5;
const MACHINES = 20;
const LEARNED = 5000;

/**
 * What is published: machines side by side, watts learned from counts over a library, a report on paper.
 *
 * @param record of a machine
 */
export async function benchPublish(record: CaseRecord): Promise<LoadRow[]> {
  const machines = Array.from({ length: MACHINES }, (_, i) => ({
    name: `machine ${i}`,
    request: { record },
  }));
  const drawn = { draws: SHOWN_DRAWS, seed: SHOWN_SEED };
  const compared = compareMachines(machines.slice(0, 2), { caps: [36], ...drawn }).machines;
  const report = reportOf({
    request: { record },
    verdict: verdictOf({ record }, { caps: [28, 32, 36, 40, 45], ...drawn }),
    measured: [],
    peers: compared.map(({ name, at }) => ({ name, watts: at[0]! })),
    trace: { record: 'revision 1', program: '0', ...drawn },
  });
  const random = randomStream(1);
  const learned = Array.from({ length: LEARNED }, (): CountedMachine => {
    const counts = {
      finAreaCm2: 100 + 900 * random(),
      fans: 1 + Math.floor(3 * random()),
      pipes: Math.floor(6 * random()),
    };
    return { ...counts, watts: counts.finAreaCm2 ** 0.6 * (0.8 + 0.4 * random()) };
  });
  return [
    {
      name: `${MACHINES} machines side by side at a cap: ${SHOWN_DRAWS} draws each`,
      ms: await medianMs(() => void compareMachines(machines, { caps: [36], ...drawn })),
      bound: 1500,
    },
    {
      name: `watts learned from counts of ${LEARNED} machines, with leave-one-out error`,
      ms: await medianMs(() => void countedOpinion(learned[0]!, learned)),
      bound: 1000,
    },
    {
      name: 'a report as PDF',
      ms: await medianMs(async () => void (await reportPdf(report))),
      bound: 2000,
    },
  ];
}

async function medianMs(run: () => unknown): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < REPEATS; i++) {
    const begun = performance.now();
    await run();
    times.push(performance.now() - begun);
  }
  return times.sort((a, b) => a - b)[(REPEATS - 1) / 2]!;
}
