import { openCase } from '../case/openCase';
import type { Cap } from '../envelope/fanStates';
import type { CaseRecord } from '../record/recordSchema';
import type { LabDefaults } from '../record/resolver';
import { estimateWithDraws } from '../uncertainty/estimateWithDraws';
import type { MeasureMeans } from '../uncertainty/measureNext';
import { SHOWN_SEED } from '../uncertainty/wattsBand';

const CAPS: readonly Cap[] = [36, 'full'];
const DRAWS = 1000;
const MEANS: readonly [MeasureMeans, string][] = [
  ['noise-sweep', 'level over fan speed'],
  ['fan-curve', 'fan curve'],
  ['run-under-load', 'one steady run'],
];
const CAUSES = 4;

/** Defaults as they might be known from steady runs on many machines. */
const FINS = { 'finStacks.uaFactor': { value: 0.7, low: 0.63, high: 0.77 } };
const FANS = { ...FINS, 'fans.phi': { value: 0.1, low: 0.09, high: 0.11 } };
const NOISE = { ...FANS, 'noise.referenceDbA': { value: 45, low: 44, high: 46 } };
const KNOWN: readonly LabDefaults[] = [FINS, FANS, NOISE];
const KNOWN_WORDS = [
  'the factor on the fins known to ±10 %',
  'the fans’ flow coefficient as well',
  'and their level to ±1 dB',
];

/** Half the band of both dies together over its median, by cap. */
function halfBands(record: CaseRecord, defaults: LabDefaults): number[] {
  const open = openCase({ record, lab: { defaults } });
  const options = { draws: DRAWS, seed: SHOWN_SEED, caps: CAPS, envelopes: false };
  return estimateWithDraws(open, options).estimate.caps.map(
    ({ together: t }) => (t.p95! - t.p05!) / 2 / t.p50!,
  );
}

const percent = (x: number) => `±${(100 * x).toFixed(0)} %`;

/** How wide the bands of some records are, what makes them so, and what each act leaves of them, as a Markdown document. */
export function bandsDocument(records: readonly { name: string; record: CaseRecord }[]): string {
  const lines = [
    '# Bands',
    '',
    `Half the 5–95 % band over the median of ${DRAWS} draws, both dies together, of the examples; made by \`npm run docs\`. What an act`,
    'leaves is foretold from the draws; tests make the run and compare.',
    '',
    `| record | cap | now | ${MEANS.map(([, words]) => words).join(' | ')} | widest causes, share of the spread |`,
    `|---|---|---|${MEANS.map(() => '---|').join('')}---|`,
  ];
  for (const { name, record } of records) {
    const open = openCase({ record });
    const options = { draws: DRAWS, seed: SHOWN_SEED, caps: CAPS, envelopes: false };
    const { estimate, summary } = estimateWithDraws(open, options);
    estimate.caps.forEach(({ cap, together }) => {
      const readout = open.model.hasCpu && open.model.hasGpu ? 'together' : 'cpuAlone';
      const of = <T extends { readout: string; cap: Cap }>(all: readonly T[]) =>
        all.filter((x) => x.readout === readout && x.cap === cap);
      const half = (together.p95! - together.p05!) / 2 / together.p50!;
      const items = of(summary.next)[0]?.items ?? [];
      const after = MEANS.map(([means]) => {
        const item = items.find((i) => i.means === means);
        return item ? percent((half * item.thenW) / item.nowW) : percent(half);
      });
      const causes = of(summary.sensitivity)
        .sort((a, b) => b.share - a.share)
        .slice(0, CAUSES)
        .map((s) => `\`${s.input}\` ${(100 * s.share).toFixed(0)} %`);
      lines.push(
        `| ${name} | ${cap} | ${percent(half)} | ${after.join(' | ')} | ${causes.join(', ')} |`,
      );
    });
  }
  const [first] = records;
  const known = first ? KNOWN.map((defaults) => halfBands(first.record, defaults)) : [];
  lines.push(
    '',
    '## What it would take',
    '',
    'The goal for a machine with two dies, recorded with care and never run, is ±15 %; it is not reached, and no range is drawn',
    'tighter to reach it. What is left after every figure of the record is measured are factors that no opened machine shows: how',
    'evenly air and solder share the fins (`finStacks.uaFactor`), what the fans deliver as installed (`fans.phi`, `fans.psi`), how',
    'loud they are (`noise.referenceDbA`). Each is narrowed by an act of the bench, in the columns above; or, for all machines at',
    'once, by steady runs on many of them, whose fitted factors take the place of what is from memory.',
    '',
    `| the first record, with | ${CAPS.map((c) => (c === 'full' ? 'full speed' : `${c} dB(A)`)).join(' | ')} |`,
    '|---|---|---|',
    ...known.map((halves, i) => `| ${KNOWN_WORDS[i]!} | ${halves.map(percent).join(' | ')} |`),
    '',
  );
  return lines.join('\n');
}
