import { parseRecord } from '../record/parseRecord';
import { exampleRecord } from '../test-support/exampleRecord';
import { openCase } from '../case/openCase';
import { splitWords } from '../case/answerWords';
import { gainsOfChange, drawMachine, THRESHOLD } from '../levers/leverGains';
import { possibleLevers } from '../levers/possibleLevers';
import { estimateWithDraws } from '../uncertainty/estimateWithDraws';
import { USUAL_WORK } from './usualWork';
import { middleOf, VerdictEnded, verdictOf, type Verdict } from './verdict';

const CAPS = [28, 36, 45];
const record = exampleRecord('two-fan-shared-pipes');
let verdict: Verdict;
beforeAll(() => {
  verdict = verdictOf({ record }, { caps: CAPS, draws: 100 });
});

test('its watts are those of the estimate, its headline and reasons those figures in words', () => {
  const { estimate } = estimateWithDraws(openCase({ record }), { caps: CAPS, draws: 100 });
  expect(verdict.cap).toBe(36);
  verdict.at.forEach((at, i) => {
    const { together, cpuAlone } = estimate.caps[i]!;
    expect(at.watts).toEqual({ p05: together.p05, p50: together.p50, p95: together.p95 });
    expect(at.cpuAlone!.p50).toBe(cpuAlone!.p50);
    expect(at.cpuW + at.gpuW).toBeCloseTo(at.watts.p50, 9);
    expect(at.cpuW / at.gpuW).toBeCloseTo(together.cpuWatts / together.gpuWatts, 9);
  });
  const main = verdict.at[1]!;
  const [low, mid, high] = [main.watts.p05, main.watts.p50, main.watts.p95].map((w) =>
    w.toFixed(0),
  );
  expect(verdict.headline).toContain(`${mid} W at 36 dB(A), ${low} to ${high}: held back by`);
  expect(verdict.headline).toMatch(/Holds (about |roughly )?\d+ W/);
  expect(verdict.headline).toBe(verdict.headlineParts.map((p) => p.text).join(''));
  expect(verdict.headlineParts.filter((p) => p.of).map((p) => p.of)).toEqual(['watts', 'level']);
  expect(verdict.reasons[0]).toBe(`${splitWords(main.cpuW, main.gpuW)} together.`);
  const gained = verdict.at[2]!.watts.p50 - verdict.at[0]!.watts.p50;
  expect(verdict.reasons.join(' ')).toContain(
    `From 28 to 45 dB(A) it gains ${gained.toFixed(0)} W.`,
  );
});

test('each kind of work has its own split, and more watts are never held more surely', () => {
  expect(verdict.work.map((w) => w.id)).toEqual(USUAL_WORK.map((w) => w.id));
  const writing = verdict.work.find((w) => w.id === 'writing')!;
  const render = verdict.work.find((w) => w.id === 'render')!;
  expect([writing.word, render.word]).toEqual(['held', 'short']);
  // CPU alone: as the estimate has it
  const { cpuAlone } = verdict.at[1]!;
  expect(verdict.work.find((w) => w.id === 'compile')!.band.p50 / cpuAlone!.p50).toBeGreaterThan(
    0.8,
  );
});

test('advice is what can be felt, by watts for a minute; what cannot be felt is named', () => {
  const options = { caps: [36], draws: 100, seed: 1, threshold: THRESHOLD };
  const before = drawMachine({ record }, options);
  for (const lever of possibleLevers(record).filter((l) => l.possible)) {
    const [gain] = gainsOfChange(before, lever, options);
    expect(verdict.tooSmall.includes(lever.name)).toBe(gain!.tooSmallToFeel);
    const advised = verdict.advice.find((a) => a.id === lever.id);
    if (advised) expect(advised.gain).toEqual(gain);
  }
  // what the owner cannot do is neither advised nor waved aside
  for (const lever of possibleLevers(record).filter((l) => !l.possible)) {
    expect(verdict.tooSmall).not.toContain(lever.name);
    expect(verdict.advice.map((a) => a.id)).not.toContain(lever.id);
  }
  expect(verdict.advice.length).toBeGreaterThan(0);
  expect(verdict.advice.every((a) => a.gain.wattsGained.p50 > 0)).toBe(true);
});

test('a machine with one die is asked for no GPU work, and told that its setting holds it back', () => {
  const one = verdictOf(
    { record: exampleRecord('one-die') },
    { caps: [32, 36], cap: 36, draws: 60 },
  );
  expect(one.work.map((w) => w.id)).toEqual(['writing', 'sound', 'compile']);
  expect(one.at[1]!.gpuW).toBe(0);
  expect(one.reasons.join(' ')).toContain(
    'As it is set it runs 12 W: limits of firmware or adapter',
  );
  expect(one.work.find((w) => w.id === 'sound')!.word).toBe('short');
  expect(one.burst.gpuW).toBe(0);
});

test('a cap that is none of the laboratory’s is judged too, in its place', () => {
  const own = verdictOf({ record }, { caps: [28, 45], cap: 33, draws: 40 });
  expect(own.at.map((a) => a.cap)).toEqual([28, 33, 45]);
  expect(own.cap).toBe(33);
  expect(middleOf(['off', 28, 36, 'full'])).toBe(36);
  expect(middleOf(['off', 'full'])).toBe('full');
});

test('it is given up where that is asked for, and tells how far it is until then', () => {
  const told: [number, number][] = [];
  expect(() =>
    verdictOf(
      { record },
      {
        caps: [36],
        draws: 20,
        progress: (done, of) => {
          told.push([done, of]);
          return done < 3;
        },
      },
    ),
  ).toThrow(VerdictEnded);
  expect(told.map(([d]) => d)).toEqual([1, 2, 3]);
  expect(told[0]![1]).toBeGreaterThan(3);
});

test('the age of its paste is taken off the usual span', () => {
  const old = structuredClone(record);
  for (const d of old.dies!)
    d.interface = { ...d.interface, ageYears: { value: 5, origin: 'estimated' } };
  const { record: checked } = parseRecord(old);
  const { care } = verdictOf({ record: checked! }, { caps: [36], draws: 20 });
  const paste = care.find((c) => c.what === 'paste')!;
  if (paste.from === 'usual') expect(paste.toMonths).toBe(0);
  else expect(paste.fromMonths).toBeLessThan(24);
});
