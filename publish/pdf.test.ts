import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Report } from '@zugluft/core/report/report';
import { PAPERS, type Paper } from './formats';
import { reportPdf } from './pdf';
import { hostileReport, usualReport } from './test-support/hostileReport';

const folder = mkdtempSync(join(tmpdir(), 'zugluft-pdf-'));
/** Debian's poppler-utils, an independent reader of PDF. */
const poppler = (command: string, ...args: string[]) =>
  execFileSync(command, args, { encoding: 'utf8' });

async function written(report: Report, name: string, paper: Paper = 'A4'): Promise<string> {
  const file = join(folder, `${name}.pdf`);
  writeFileSync(file, await reportPdf(report, { paper }));
  return file;
}

test('it is a PDF with its faces in it, the same whenever it is made', async () => {
  const report = usualReport();
  const bytes = await reportPdf(report);
  expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
  expect(bytes.toString('latin1')).toContain('/FontFile2');
  expect(bytes.toString('latin1')).not.toContain('/Helvetica');
  expect(await reportPdf(report)).toEqual(bytes);
});

test('pages, faces, and text that can be taken out again', async () => {
  const report = usualReport();
  for (const paper of PAPERS) {
    const file = await written(report, paper, paper);
    const info = poppler('pdfinfo', file);
    expect(info).toMatch(/Pages:\s+[23]\n/);
    expect(info).toContain(paper === 'A4' ? '595.28 x 841.89' : '612 x 792');
    const fonts = poppler('pdffonts', file).trim().split('\n').slice(2);
    expect(fonts.length).toBeGreaterThanOrEqual(2);
    // name, type, encoding, embedded, subset, with a table back to letters
    for (const line of fonts) expect(line).toMatch(/ yes +yes +yes +\d+ +\d+$/);
    const text = poppler('pdftotext', file, '-').replace(/\s+/g, ' ');
    expect(text).toContain('Brackenfold Heron 16 Studio');
    expect(text).toContain('Watts against noise');
    expect(text).toContain('Lithium battery: never pry');
    expect(text).toContain('1 of 3');
    expect(text).toContain('dB(A)');
  }
});

/** Whether anything is drawn in a margin but for the line at the foot. */
async function inkInMargins(png: string): Promise<boolean> {
  const { data, info } = await sharp(png).greyscale().raw().toBuffer({ resolveWithObject: true });
  const edge = Math.round((info.width * 30) / 595);
  for (let y = 0; y < info.height; y++) {
    for (let x = 0; x < info.width; x++) {
      const isMargin = x < edge || x >= info.width - edge || y < edge;
      if (isMargin && data[y * info.width + x]! < 200) return true;
    }
  }
  return false;
}

test('nothing lies outside a page, whatever was typed, on either paper', async () => {
  const report = hostileReport(2000);
  for (const paper of PAPERS) {
    const file = await written(report, `hostile-${paper}`, paper);
    const text = poppler('pdftotext', file, '-');
    expect(text).toContain('<script>alert(1)</script>');
    expect(text).toContain('Привет');
    poppler('pdftoppm', '-r', '50', '-png', file, join(folder, `hostile-${paper}`));
  }
  const pages = readdirSync(folder).filter((f) => /^hostile-.*\.png$/.test(f));
  expect(pages.length).toBeGreaterThanOrEqual(6);
  for (const page of pages) expect(await inkInMargins(join(folder, page))).toBe(false);
});

test('a chart is drawn where the page has it: ink between its heading and its table', async () => {
  const file = await written(usualReport(), 'chart');
  poppler('pdftoppm', '-r', '50', '-f', '1', '-l', '1', '-png', file, join(folder, 'chart'));
  const png = readdirSync(folder).find((f) => f.startsWith('chart-'))!;
  const { data, info } = await sharp(join(folder, png)).raw().toBuffer({ resolveWithObject: true });
  // the band’s colour, far from grey
  let tinted = 0;
  for (let i = 0; i < data.length; i += info.channels) {
    if (data[i]! - data[i + 2]! > 30) tinted++;
  }
  expect(tinted / (info.width * info.height)).toBeGreaterThan(0.02);
});
