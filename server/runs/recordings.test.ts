import { csvOf, generatedLog } from '@zugluft/core/test-support/generatedLog';
import { wavBytes } from '@zugluft/core/sound/wavBytes';
import { newRun } from '../test-support/newRun';
import { testServer } from '../test-support/testServer';

const { call, create } = testServer();
const RATE = 8000;
const sine = (hz: number, amplitude: number, seconds: number) =>
  Float64Array.from(
    { length: seconds * RATE },
    (_, i) => amplitude * Math.sin((2 * Math.PI * hz * i) / RATE),
  );
/** A fan's hum that begins after half a minute, as the load does, over a faint hiss. */
const hum = (seconds: number, amplitude: number) => {
  let seed = 1;
  return sine(1000, 1, seconds).map((x, i) => {
    seed = (seed * 16_807) % 2_147_483_647;
    return (i < 30 * RATE ? 0.03 : 1) * amplitude * (0.8 * x + 0.05 * (seed / 1_073_741_823 - 1));
  });
};
const load = csvOf(
  generatedLog(
    [
      { forS: 30, cpuW: 6, gpuW: 0 },
      { forS: 260, cpuW: 25, gpuW: 0 },
    ],
    { ways: [{ own: 0.6, other: 0.2, timeConstantS: 4 }] },
  ),
)
  // the load logger hears nothing
  .split('\n')
  .map((line) => line.slice(0, line.lastIndexOf(',')))
  .join('\n')
  .trimEnd();

const runWith = async (files: Record<string, string | Uint8Array>, change: object[] = []) => {
  const { id } = await create();
  const url = `/api/machines/${id}/runs`;
  const made = (await call().post(url).send(newRun()).expect(201)).body;
  const logs = [];
  for (const [file, bytes] of Object.entries(files)) {
    const taken = (
      await call()
        .post(`${url}/${made.id}/logs?file=${file}`)
        .set('Content-Type', 'application/octet-stream')
        .send(Buffer.from(bytes as string))
        .expect(201)
    ).body;
    logs.push({
      id: `log-${logs.length + 1}`,
      file,
      kind: taken.kind,
      sha256: taken.sha256,
      ...change[logs.length],
    });
  }
  await call()
    .put(`/api/documents/run/${made.id}`)
    .set('If-Match', '"1"')
    .send({ value: { ...made.run, logs } })
    .expect(200);
  return { machineId: id, runId: made.id, at: `${url}/${made.id}` };
};

test('a recording lies beside the load, its level by a calibrator’s tone, its tone told', async () => {
  const files = {
    'load.csv': load,
    'fan.wav': wavBytes([hum(280, 0.005)], { rate: RATE }),
    'tone.wav': wavBytes([sine(1000, 0.5, 3)], { rate: RATE }),
  };
  // 94 dB at half of full scale: full scale is 100 dB
  const { at } = await runWith(files, [{}, {}, { toneDb: 94 }]);
  const told = (await call().get(`${at}/analysis`).expect(200)).body;
  const [fan, tone] = told.recordings;
  expect(fan).toMatchObject({ id: 'log-2', tone: null, clipped: 0 });
  expect(fan.fullScaleDb).toBeCloseTo(100, 1);
  expect(tone).toMatchObject({ id: 'log-3', tone: { toneDb: 94, fault: null } });
  // loud part: 100 + 20 log10(0.004)
  expect(Math.abs(told.steady[0].levelDbA.mean - 52.0)).toBeLessThan(0.5);
  expect(told.sound.tones[0]).toMatchObject({ prominent: true });
  expect(Math.abs(told.sound.tones[0].hz - 1000)).toBeLessThan(3);
  // laid where what both saw begins
  const place = told.log.logs.find((l: { id: string }) => l.id === 'log-2');
  expect(Math.abs(place.offsetS)).toBeLessThan(5);
  expect(told.log.logs.map((l: { id: string }) => l.id)).toEqual(['log-1', 'log-2']);
  const series = (await call().get(`${at}/series?pixels=20`).expect(200)).body;
  expect(Object.keys(series.channels)).toContain('levelDbA');
});

test('before its full scale is known a recording tells tones and no level', async () => {
  const { at } = await runWith({
    'load.csv': load,
    'fan.wav': wavBytes([hum(60, 0.005)], { rate: RATE }),
  });
  const told = (await call().get(`${at}/analysis`).expect(200)).body;
  expect(told.recordings[0]).toMatchObject({ fullScaleDb: null, leqDbA: null, thirdOctavesDb: [] });
  expect(told.recordings[0].tones[0].prominent).toBe(true);
  expect(told.steady[0].levelDbA).toBeUndefined();
  expect(told.sound).toBeNull();
});

test('a typed full scale rules, and a tone that is none says why', async () => {
  const { at } = await runWith(
    {
      'fan.wav': wavBytes([hum(200, 0.005)], { rate: RATE }),
      'tone.wav': wavBytes([sine(1000, 1.4, 3)], { rate: RATE }),
    },
    [{ fullScaleDb: 110 }, { toneDb: 94 }],
  );
  const told = (await call().get(`${at}/analysis`).expect(200)).body;
  expect(told.recordings[0].fullScaleDb).toBe(110);
  expect(told.recordings[1].tone.fault).toMatch(/overdriven/);
  expect(told.sound.leqDbA).toBeGreaterThan(55);
});

test('a recording alone, of which nothing is known, is no fault', async () => {
  const { at, machineId } = await runWith({
    'fan.wav': wavBytes([hum(40, 0.005)], { rate: RATE }),
  });
  const told = (await call().get(`${at}/analysis`).expect(200)).body;
  expect(told).toMatchObject({ steady: [], log: { rows: 0 } });
  await call().get(`${at}/series`).expect(200);
  const { items } = (await call().get(`/api/machines/${machineId}/runs/steady`)).body;
  expect(items[0]).toMatchObject({ states: [], lacks: expect.stringMatching(/no log/) });
});

test.each([
  ['of 8 bit', wavBytes([sine(1000, 0.1, 1)], { rate: RATE }), 34, 8, /8 bit/],
  ['compressed', wavBytes([sine(1000, 0.1, 1)], { rate: RATE }), 20, 85, /compressed/],
])('a WAV %s is refused in words', async (_, bytes, at, value, words) => {
  const { id } = await create();
  const made = (await call().post(`/api/machines/${id}/runs`).send(newRun()).expect(201)).body;
  bytes[at] = value;
  const answer = await call()
    .post(`/api/machines/${id}/runs/${made.id}/logs?file=bad.wav`)
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from(bytes))
    .expect(422);
  expect(answer.body.detail).toMatch(words);
});

test('a short recording of the steady state is its level', async () => {
  const steadyHum = hum(60, 0.005).subarray(30 * RATE);
  const files = { 'load.csv': load, 'fan.wav': wavBytes([steadyHum], { rate: RATE }) };
  const { at, machineId } = await runWith(files, [{}, { fullScaleDb: 100 }]);
  const told = (await call().get(`${at}/analysis`).expect(200)).body;
  expect(Math.abs(told.steady[0].levelDbA.mean - 52.0)).toBeLessThan(0.5);
  // a hum that does not move lies nowhere on the axis
  expect(told.log.logs).toBeUndefined();
  const { items } = (await call().get(`/api/machines/${machineId}/runs/steady`)).body;
  expect(items[0].states[0].means.levelDbA.mean).toBeCloseTo(told.steady[0].levelDbA.mean, 3);
});

test('a recording that was brought in before the load does not rule the axis', async () => {
  const { at } = await runWith(
    { 'fan.wav': wavBytes([hum(100, 0.005)], { rate: RATE }), 'load.csv': load },
    [{ fullScaleDb: 100 }],
  );
  const told = (await call().get(`${at}/analysis`).expect(200)).body;
  expect(told.log.durationS).toBeGreaterThan(280);
  expect(Math.abs(told.steady[0].cpuPowerW.mean - 25)).toBeLessThan(0.5);
});
