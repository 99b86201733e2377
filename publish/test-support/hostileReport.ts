import { NO_ARTICLE } from '@zugluft/core/report/article';
import type { Report } from '@zugluft/core/report/report';
import { reportOf } from '@zugluft/core/report/report';
import { exampleRecord } from '@zugluft/core/test-support/exampleRecord';
import { verdictOf } from '@zugluft/core/verdict/verdict';

/** Markup, formulas, right-to-left, signs of many scripts, emoji, what no XML may hold, very long words. */
export const HOSTILE =
  '<script>alert(1)</script> </style><img src=x onerror=alert(2)> =1+1 | \u202eevil\u202c \u{1f525} عربي Привет 漢字 & "q" \'s\' `x` **b** [l](javascript:alert(3)) ![p](http://a.example/p.png) \\ \u0000\u0007 \ud800 end';

const kept = new Map<number, Report>();
let usual: Report | null = null;

/** A report whose every text is what nobody should type; made once for each length. */
export function hostileReport(long = 10_000): Report {
  const made = kept.get(long) ?? makeHostile(long);
  kept.set(long, made);
  return made;
}

function makeHostile(long: number): Report {
  const record = exampleRecord('two-fan-shared-pipes');
  record.identity = {
    ...record.identity,
    maker: HOSTILE,
    model: `=HYPERLINK("http://a.example") ${'w'.repeat(long)}`,
    variant: 'word '.repeat(long / 5),
    firmware: HOSTILE,
  };
  record.settings![0]!['name'] = HOSTILE;
  const verdict = verdictOf({ record }, { caps: [28, 36], draws: 20 });
  return reportOf({
    request: { record },
    verdict,
    measured: [
      {
        run: HOSTILE,
        cpuW: 30,
        gpuW: 50,
        levelDbA: 36,
        roomC: 22,
        done: { load: `${HOSTILE} ${'w'.repeat(long)}`, score: 1e9, framesPerS: 1e5 },
      },
    ],
    peers: [
      { name: HOSTILE, watts: { p05: 80, p50: 90, p95: 100 } },
      { name: 'w'.repeat(long), watts: { p05: 70, p50: 80, p95: 90 }, isOwn: true },
    ],
    peerWords: HOSTILE,
    article: {
      ...NO_ARTICLE,
      lead: HOSTILE,
      impressions: `# ${HOSTILE}\n\n> ${HOSTILE}\n\n- ${'w'.repeat(Math.min(long, 5000))}\n- ${HOSTILE}`,
      closing: `[x](javascript:alert(4)) <!-- ${HOSTILE} -->\n\n\`\`\`\n${HOSTILE}\n\`\`\``,
    },
    trace: { record: HOSTILE, program: '0', draws: 20, seed: 1 },
  });
}

/** A report as the demo machines have it. */
export const usualReport = (): Report => (usual ??= makeUsual());

function makeUsual(): Report {
  const record = exampleRecord('two-fan-shared-pipes');
  const verdict = verdictOf({ record }, { caps: [28, 32, 36, 40, 45], draws: 40 });
  return reportOf({
    request: { record },
    verdict,
    measured: [
      {
        run: 'both, night',
        cpuW: 33,
        gpuW: 56,
        levelDbA: 36,
        roomC: 22.4,
        done: { load: 'forest scene', score: 9240, framesPerS: 61.5 },
      },
    ],
    peers: [
      { name: 'Oslund Drift 17 Expedition', watts: { p05: 120, p50: 150, p95: 180 } },
      { name: verdict.name, watts: verdict.at[2]!.watts, isOwn: true },
    ],
    trace: { record: 'revision 3', program: '0', draws: 40, seed: 1 },
  });
}
