import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { wavBytes } from '../core/sound/wavBytes';
import { CHROMIUM } from './chromium';
import { newRunOfExample, putAsideOpen, copyOfExample, watchErrors } from './support';

const folder = mkdtempSync(join(tmpdir(), 'zugluft-sound-'));
const sine = (hz: number, amplitude: number, seconds: number, rate: number) =>
  Float64Array.from(
    { length: seconds * rate },
    (_, i) => amplitude * Math.sin((2 * Math.PI * hz * i) / rate),
  );
const MICROPHONE = join(folder, 'microphone.wav');
// what the simulated microphone hears for as long as it is listened to: half of full scale
writeFileSync(MICROPHONE, wavBytes([sine(1000, 0.5, 10, 48_000)], { rate: 48_000 }));

test.use({
  permissions: ['microphone'],
  launchOptions: {
    ...CHROMIUM,
    args: [
      ...CHROMIUM.args,
      '--use-fake-device-for-media-stream',
      '--use-fake-ui-for-media-stream',
      `--use-file-for-fake-audio-capture=${MICROPHONE}`,
    ],
  },
});

test('a load and a recording: its level by a calibrator’s tone, the tone that stands out, the mark on the ladder, and out as a zip', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await newRunOfExample(page);
  const rate = 8000;
  const fan = sine(1000, 0.002, 20, rate).map((x, i) => x + (i % 7) * 2e-5);
  const file = (name: string, bytes: Uint8Array | string) => ({
    name,
    mimeType: 'application/octet-stream',
    buffer: Buffer.from(bytes as string),
  });
  const header = `Time,CPU power [W],GPU power [W],CPU temperature [°C],GPU temperature [°C],fanRpm.fan-left,fanRpm.fan-right,Riddle ${Date.now()}`;
  const rows = readFileSync('examples/load-two-fans.csv', 'utf8')
    .trim()
    .split('\n')
    .slice(1)
    .map((r) => `${r},7`);
  await page
    .getByLabel('logs of this run')
    .setInputFiles([
      file('load.csv', [header, ...rows, ''].join('\n')),
      file('fan.wav', wavBytes([fan], { rate })),
      file('tone.wav', wavBytes([sine(1000, 0.5, 4, rate)], { rate })),
    ]);
  // a header that nobody has seen is looked at once
  const layout = page.getByRole('region', { name: 'layout of load.csv' });
  await expect(layout).toContainText('is this how it is to be read?');
  await layout.getByLabel(/^Riddle .* is$/).selectOption('skinC');
  await layout.getByRole('button', { name: 'Right: so from now on' }).click();
  await expect(layout).toHaveCount(0);
  await expect(page.getByTestId('run-sustained')).toHaveText(/48 W CPU 57 W GPU/);
  const recordings = page.getByRole('region', { name: 'recordings' });
  await expect(recordings).toContainText('No level yet');
  await expect(page.getByRole('region', { name: 'what was heard' })).toContainText(
    /Tones that stand out: (1000 Hz|1 kHz)/,
  );
  await recordings.getByRole('button', { name: 'it is a calibrator of 94 dB' }).nth(1).click();
  await expect(recordings).toContainText('a calibrator of 94 dB: full scale is 100.0 dB');
  // 100 dB less what lies between 0.002 and full scale
  const says = page.getByRole('region', { name: 'what the logs say' });
  await expect(says).toContainText(/at 46\.0 ± 0\.5 dB\(A\)/);
  await page.getByLabel('background').fill('19');
  await expect(says).toContainText('background 19 taken off');
  await expect(page.getByTestId('rung-measured').first()).toContainText(/10\d\.\d ± \d\.\d W/);
  const zip = page.getByRole('link', { name: 'save as zip' });
  const answer = await page.request.get((await zip.getAttribute('href'))!);
  expect(answer.headers()['content-type']).toBe('application/zip');
  // and in again, into another machine
  const other = await copyOfExample(page);
  await putAsideOpen(page);
  await page.goto(`/machines/${other}/runs`);
  await page.getByLabel('runs as zips').setInputFiles(file('run.zip', await answer.body()));
  await expect(page.getByTestId('run-sustained')).toHaveText(/48 W CPU 57 W GPU/);
  await expect(says).toContainText(/at 46\.0 ± 0\.5 dB\(A\)/);
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});

test('the live meter hears the microphone, is calibrated by a tone, and its mean becomes the background', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await newRunOfExample(page);
  await page.keyboard.press('3');
  const meter = page.getByRole('region', { name: 'live meter' });
  await expect(page.getByTestId('live-slow')).toHaveText('–');
  await page.keyboard.press('4');
  await expect(meter.getByRole('button', { name: /Stop/ })).toBeVisible();
  // nothing is a level before something says what full scale is
  await expect(page.getByTestId('live-mean')).toContainText(/over \d+ s/);
  await expect(page.getByTestId('live-slow')).toHaveText('–');
  const heard = async () =>
    Number(/over (\d+)/.exec((await page.getByTestId('live-mean').textContent()) ?? '')?.[1] ?? 0);
  await expect.poll(heard, { timeout: 60_000 }).toBeGreaterThan(6);
  await meter.getByRole('button', { name: 'a calibrator of 94 dB sounds now' }).click();
  const slow = async () => Number(await page.getByTestId('live-slow').textContent());
  await expect.poll(async () => Math.abs((await slow()) - 94)).toBeLessThan(1);
  // full scale lies 6 dB above half of it
  const scale = Number(await meter.getByLabel('level of a sine of full scale').inputValue());
  expect(Math.abs(scale - 100)).toBeLessThan(1.5);
  await meter.getByRole('button', { name: /the mean is the background/ }).click();
  await expect(meter.getByRole('status')).toContainText(/dB\(A\) is the background of both dies/);
  await page.keyboard.press('4');
  await expect(meter.getByRole('button', { name: /Listen/ })).toBeVisible();
  await page.keyboard.press('3');
  await expect(page.getByLabel('background')).toHaveValue(/^9\d/);
  await putAsideOpen(page);
  expect(errors).toEqual([]);
});
