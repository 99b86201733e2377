import { DEFAULTS } from './defaults';
import { explainNumber } from './figure';
import { RECORD_FIELDS } from './fieldTable';
import { recordSchema } from './recordSchema';
import { setAt } from './plainJson';
import { DRAWINGS, measuringOf } from './howToMeasure';
import { HOW_TO } from './howToTable';

test('every figure and every choice tells how it is taken, and nothing else does', () => {
  const asked = RECORD_FIELDS.filter((f) => f.holds === 'figure' || f.holds === 'choice');
  expect(asked.map((f) => f.at).filter((at) => !HOW_TO[at])).toEqual([]);
  const known = new Set(RECORD_FIELDS.map((f) => f.at));
  expect(Object.keys(HOW_TO).filter((at) => !known.has(at))).toEqual([]);
  for (const f of asked) {
    const m = measuringOf(f.at)!;
    expect(m.where.length).toBeGreaterThan(10);
    expect(m.misread.length).toBeGreaterThan(10);
    expect(m.tool).not.toBe('');
    if (f.holds === 'figure') expect(m.usual).toBeDefined();
  }
});

test('usual ranges rise, and lie within what the record takes', () => {
  for (const [at, { usual }] of Object.entries(HOW_TO)) {
    if (!usual) continue;
    expect(usual[0]).toBeLessThan(usual[1]);
    for (const value of usual) {
      expect(explainNumber(value, { max: Infinity })).toBeUndefined();
      const record = setAt(
        { format: 'zugluft-record', formatVersion: 1 } as object,
        at.split('.').map((k) => (k === '*' ? 'any' : k)),
        value,
      );
      // lists of parts are checked by their own bounds; what stands once is checked here
      if (!at.includes('*')) {
        expect([at, recordSchema.safeParse(record).success]).toEqual([at, true]);
      }
    }
  }
});

test('what is assumed lies within or near the usual range', () => {
  let seen = 0;
  for (const [at, { usual }] of Object.entries(HOW_TO)) {
    const assumed = measuringOf(at)!.assumed;
    if (!usual || !assumed) continue;
    seen++;
    expect([at, assumed.value >= usual[0] && assumed.value <= usual[1]]).toEqual([at, true]);
  }
  expect(seen).toBeGreaterThan(15);
  expect(measuringOf('shell.footHeightMm')!.assumed).toBe(DEFAULTS['shell.footHeightMm']);
});

test('each drawing is used; parts are found by place or name', () => {
  const used = new Set(Object.values(HOW_TO).map((h) => h.drawing));
  expect(DRAWINGS.filter((d) => !used.has(d))).toEqual([]);
  expect(measuringOf('finStacks.0.depthMm')).toEqual(measuringOf('finStacks.fins-left.depthMm'));
  expect(measuringOf('finStacks.0.nothing')).toBeUndefined();
  expect(measuringOf('dies.cpu.interface.bondLineUm')).toMatchObject({
    unit: 'µm',
    drawing: 'bond-line',
  });
});
