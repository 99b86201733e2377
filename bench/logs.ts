import { execFileSync } from 'node:child_process';
import { createWriteStream, mkdtempSync, rmSync } from 'node:fs';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { changePoints } from '@zugluft/core/logs/changePoints';
import { logOfCsv } from '@zugluft/core/test-support/logOfCsv';
import { analyseLog } from '@zugluft/core/runs/analyseLog';
import { normalQuantile } from '@zugluft/core/uncertainty/normal';
import { randomStream } from '@zugluft/core/uncertainty/random';
import {
  csvOf,
  generatedLog,
  type GeneratedOptions,
} from '@zugluft/core/test-support/generatedLog';

const ROWS = 1_000_000;
const TIMES = 3;

/** A log of a million rows, eight columns, in a folder of its own. */
export async function writeMillion(file: string): Promise<void> {
  const out = createWriteStream(file);
  const next = randomStream(1);
  out.write(
    'Time [s],CPU Package Power [W],GPU Power [W],CPU Temperature [°C],GPU Temperature [°C],Fan left [rpm],Fan right [rpm],Level [dB(A)]\n',
  );
  for (let i = 0; i < ROWS;) {
    let text = '';
    for (const end = i + 20_000; i < end; i++) {
      const t = i * 0.5;
      const cpu = (t < 28 ? 94 : t < 200_000 ? 54 : 45) + next();
      const warm = 95 * (1 - Math.exp(-t / 90));
      text += `${t.toFixed(1)},${cpu.toFixed(2)},${(72 + next()).toFixed(2)},${(warm + next()).toFixed(1)},${(0.9 * warm + next()).toFixed(1)},${4310 + Math.round(20 * next())},${4300 + Math.round(20 * next())},${(41 + next()).toFixed(1)}\n`;
    }
    if (!out.write(text)) await once(out, 'drain');
  }
  out.end();
  await once(out, 'finish');
}

const median = (x: number[]) => [...x].sort((a, b) => a - b)[x.length >> 1]!;

/** How fast logs are read, against the parser alone over the same bytes, each in a process of its own, one after the other. */
export async function benchLogs(): Promise<
  { name: string; ms: number; bound: number; unit: string }[]
> {
  const folder = mkdtempSync(join(tmpdir(), 'bench-logs-'));
  try {
    const file = join(folder, 'million.csv');
    await writeMillion(file);
    const child = (way: string) =>
      JSON.parse(
        execFileSync('node', ['--import', 'tsx', 'bench/logChild.ts', way, file], {
          encoding: 'utf8',
        }),
      ) as { ms: number; aboveMb: number };
    const runs = Array.from({ length: TIMES }, () => ({
      parser: child('parser'),
      analyse: child('analyse'),
    }));
    const next = randomStream(2);
    const levels = Float64Array.from(
      { length: 100_000 },
      (_, i) => 5 * (Math.floor(i / 1000) % 3) + normalQuantile(next()),
    );
    const from = performance.now();
    changePoints([levels], 3 * Math.log(levels.length), 2);
    const changes = performance.now() - from;
    return [
      {
        name: 'a log of a million rows analysed from disk, over the CSV parser alone',
        ms: median(runs.map((r) => r.analyse.ms / r.parser.ms)),
        bound: 2,
        unit: 'times',
      },
      {
        name: 'memory above rest while it is analysed, most',
        ms: median(runs.map((r) => r.analyse.aboveMb)),
        bound: 150,
        unit: 'MB',
      },
      {
        name: 'exact change points of 100,000 samples with a hundred changes',
        ms: changes,
        bound: 1000,
        unit: 'ms',
      },
    ];
  } finally {
    rmSync(folder, { recursive: true });
  }
}

const LOGS = 60;

/** What of known logs is found: table of docs/bench.md. */
export function studyOfLogs(): string[] {
  const ways: [string, GeneratedOptions][] = [
    ['noise of 0.5 W, 0.3 K', {}],
    ['noise of 2 W, 1 K', { noiseW: 2, noiseK: 1 }],
    ['noise of 5 W, 1 K', { noiseW: 5, noiseK: 1 }],
    ['whole watts and kelvins', { quantumW: 1, quantumK: 1 }],
    ['a fifth of the cells missing', { missing: 0.2 }],
    ['a sample each two seconds, 2 W', { stepS: 2, noiseW: 2 }],
  ];
  const lines = [
    '',
    '## What is found in logs whose truth is known',
    '',
    `${LOGS} generated logs a row: idle, short-term power for 20–60 s, sustained, in half of them a later drop, cooling down. A change is found`,
    'where a cut lies within 5 s of it.',
    '',
    '| log | changes found | cuts that are none | mean error of times | steady states found | mean error of watts |',
    '|---|---|---|---|---|---|',
  ];
  for (const [name, made] of ways) lines.push(studyRow(name, made));
  return lines;
}

function studyRow(name: string, made: GeneratedOptions): string {
  const next = randomStream(11);
  const between = (low: number, high: number) => low + (high - low) * next();
  let changes = 0;
  let found = 0;
  let cuts = 0;
  let none = 0;
  let offS = 0;
  let states = 0;
  let steady = 0;
  let offW = 0;
  for (let k = 0; k < LOGS; k++) {
    const gpuW = between(0, 80);
    const cpuW = between(25, 55);
    const levels = [
      { forS: Math.round(between(20, 60)), cpuW: between(3, 8), gpuW: between(1, 5) },
      { forS: Math.round(between(20, 60)), cpuW: cpuW * between(1.2, 2), gpuW },
      { forS: Math.round(between(600, 900)), cpuW, gpuW },
      ...(k % 2
        ? [{ forS: Math.round(between(600, 900)), cpuW: cpuW * between(0.6, 0.85), gpuW }]
        : []),
      { forS: 120, cpuW: 5, gpuW: 3 },
    ];
    const a = analyseLog(logOfCsv(csvOf(generatedLog(levels, { ...made, seed: k + 1 }))));
    const truth = levels
      .slice(1)
      .map((_, i) => levels.slice(0, i + 1).reduce((s, l) => s + l.forS, 0));
    const own = a.segments.slice(1).map((s) => s.fromS);
    changes += truth.length;
    cuts += own.length;
    for (const t of truth) {
      const near = Math.min(...own.map((x) => Math.abs(x - t)));
      if (near > 5) continue;
      found++;
      offS += near;
    }
    none += own.filter((x) => Math.min(...truth.map((t) => Math.abs(x - t))) > 5).length;
    const held = levels.slice(2, -1);
    states += held.length;
    held.forEach((l, i) => {
      const s = a.steady.find((x) => x.fromS >= truth[i + 1]! - 1 && x.toS <= truth[i + 2]! + 1);
      if (!s) return;
      steady++;
      offW +=
        Math.abs(s.means['cpuPowerW']!.mean - l.cpuW) +
        Math.abs(s.means['gpuPowerW']!.mean - l.gpuW);
    });
  }
  const share = (x: number, of: number) => `${((100 * x) / of).toFixed(1)} %`;
  return `| ${name} | ${share(found, changes)} | ${share(none, cuts)} | ${(offS / found).toFixed(2)} s | ${share(steady, states)} | ${(offW / (2 * steady)).toFixed(3)} W |`;
}
