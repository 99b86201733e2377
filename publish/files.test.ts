import { execFileSync } from 'node:child_process';
import { widthOf } from '@zugluft/core/report/chart';
import { CARD_SIZES } from '@zugluft/core/report/cardChart';
import { plainLine } from '@zugluft/core/exchange/tree';
import { fromXml } from 'xast-util-from-xml';
import type { Element } from 'xast';
import sharp from 'sharp';
import { create } from 'fontkit';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { faces, inFaces, sfntOf } from './fonts';
import { chartPng, chartSvg } from './svg';
import { writeReport } from './writeReport';
import { hostileReport, usualReport } from './test-support/hostileReport';

const CHART = 'chart:watts-against-noise';

/** Reference: a strict parser of XML. */
const xmlOf = (text: string): Element =>
  fromXml(text).children.find((c): c is Element => c.type === 'element')!;

/** What the linter finds, in a program of its own: it comes as modules only. */
function lintOf(text: string): unknown {
  const program = `import { lint } from 'markdownlint/sync';
    const text = await new Response(process.stdin).text();
    const config = { MD013: false, MD036: false };
    process.stdout.write(JSON.stringify(lint({ strings: { text }, config }).text));`;
  const args = ['--input-type=module', '-e', program];
  return JSON.parse(execFileSync(process.execPath, args, { input: text, encoding: 'utf8' }));
}

test('the Markdown passes a linter, and its charts lie beside it as SVG and PNG', async () => {
  const files = await writeReport(usualReport(), 'md', 'my report.md');
  expect(files.map((f) => f.name)).toEqual([
    'my report.md',
    'my report-watts-against-noise.svg',
    'my report-watts-against-noise.png',
    'my report-among-its-peers.svg',
    'my report-among-its-peers.png',
  ]);
  const text = files[0]!.bytes.toString();
  expect(text).toContain('](my%20report-watts-against-noise.svg)');
  // reference: markdownlint; lines are as long as their sentences, the headline is a sentence of weight
  expect(lintOf(text)).toEqual([]);
});

test('in Markdown nothing that was typed is markup', async () => {
  const [file] = await writeReport(hostileReport(), 'md', 'r.md');
  const text = file!.bytes.toString();
  expect(text).not.toMatch(/(?<!\\)<(script|img|\/style)/);
  expect(text).not.toMatch(/(?<!\\)\]\((javascript|http)/);
});

test('drawings are well-formed XML with all their text, as a strict reader has them', () => {
  for (const report of [usualReport(), hostileReport()]) {
    for (const chart of Object.values(report.charts)) {
      const read = xmlOf(chartSvg(chart));
      expect(read.name).toBe('svg');
      expect(read.attributes['aria-label']).toBe(plainLine(chart.alt));
      const texts = read.children.flatMap((c) => ('name' in c && c.name === 'text' ? [c] : []));
      expect(texts).toHaveLength(chart.marks.filter((m) => m.kind === 'text').length);
    }
  }
});

test('pictures are of twice the size of their drawings', async () => {
  for (const report of [usualReport(), hostileReport()]) {
    for (const chart of Object.values(report.charts)) {
      const { width, height } = await sharp(chartPng(chart)).metadata();
      expect(width).toBe(Math.round(2 * chart.width));
      expect(height).toBe(Math.round(2 * chart.height));
    }
  }
});

test('a picture has its text: less of it is paper than without', async () => {
  const chart = usualReport().charts[CHART]!;
  const ink = async (c: typeof chart) => {
    const { data } = await sharp(chartPng(c))
      .greyscale()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return data.reduce((n, v) => n + (v < 250 ? 1 : 0), 0);
  };
  const bare = { ...chart, marks: chart.marks.filter((m) => m.kind !== 'text') };
  expect(await ink(chart)).toBeGreaterThan(await ink(bare));
});

test('a card is a picture of the size that is asked for, whatever was typed', async () => {
  for (const report of [usualReport(), hostileReport()]) {
    for (const size of CARD_SIZES) {
      const [png] = await writeReport(report, 'card-png', 'c.png', { size });
      const { width, height } = await sharp(png!.bytes).metadata();
      expect(`${width}x${height}`).toBe(size);
      const [svg] = await writeReport(report, 'card-svg', 'c.svg', { size });
      expect(xmlOf(svg!.bytes.toString()).attributes['viewBox']).toBe(`0 0 ${width} ${height}`);
    }
  }
});

test('data and table hold the same figures', async () => {
  const report = usualReport();
  const [json] = await writeReport(report, 'json', 'r.json');
  const [csv] = await writeReport(report, 'csv', 'r.csv');
  const rows = csv!.bytes.toString().trim().split('\r\n').slice(1);
  const { figures } = JSON.parse(json!.bytes.toString()) as { figures: { value: number }[] };
  expect(rows).toHaveLength(figures.length);
  rows.forEach((row, i) => expect(row).toContain(`,${figures[i]!.value},`));
});

test('a font that was packed is the same font: every letter and its width', () => {
  const require = createRequire(__filename);
  const packed = readFileSync(
    require.resolve('@fontsource/hanken-grotesk/files/hanken-grotesk-latin-400-normal.woff'),
  );
  // reference: fontkit reads the packed one too
  const [a, b] = [create(packed), create(sfntOf(packed))] as unknown as {
    layout: (t: string) => { advanceWidth: number };
    numGlyphs: number;
  }[];
  expect(b!.numGlyphs).toBe(a!.numGlyphs);
  for (const text of ['Holds about 89 W', '36 dB(A), 70–111', 'ÄÖÜ ß é ×']) {
    expect(b!.layout(text).advanceWidth).toBe(a!.layout(text).advanceWidth);
  }
  expect(() => sfntOf(Buffer.from('OTTO'))).toThrow('no WOFF');
});

test('a letter that a face lacks comes from the other one, and one that none has is a box', () => {
  const { regular, wide } = faces();
  const pieces = inFaces('W Привет 漢', regular, wide);
  expect(pieces.map((p) => [p.face.name, p.text])).toEqual([
    ['Hanken', 'W '],
    ['Wide', 'Привет'],
    ['Hanken', ' '],
    ['Wide', '□'],
  ]);
});

test('a width that is reckoned with is never less than the letters take, in any face', () => {
  const { regular, bold, wide, wideBold } = faces();
  const texts = [
    '90 W',
    'Brackenfold Heron 16 Studio, 8-core 45 W and 90 W graphics',
    'at 36 dB(A), 72 to 107 W',
    'WWWW mmmm %%% @@@ QQQ OOO GGG',
    'Held back by the GPU junction in 7 of 10 draws.',
    'Привет',
  ];
  for (const face of [regular, bold, wide, wideBold]) {
    const font = create(face.bytes) as unknown as {
      layout: (t: string) => { advanceWidth: number };
      unitsPerEm: number;
    };
    for (const text of texts) {
      const taken = font.layout(text).advanceWidth / font.unitsPerEm;
      expect(widthOf(text, 1)).toBeGreaterThanOrEqual(taken);
    }
  }
});

test('without a level among the caps there is no chart to write alone', async () => {
  const report = { ...usualReport(), charts: {} };
  await expect(writeReport(report, 'svg', 'r.svg')).rejects.toThrow('no level');
});
