import { z } from 'zod';
import { fields } from './field';
import { fieldAt, fieldsOfMachine, fieldsOfPart, PART_WORDS, RECORD_FIELDS } from './fieldTable';
import { PART_LISTS } from './partLists';
import { recordSchema } from './recordSchema';

/** Fields of the schema that somebody types, with what is known of them. */
function leaves(schema: z.ZodType, at = ''): [string, boolean][] {
  const known = fields.has(schema);
  const inner = schema instanceof z.ZodOptional ? (schema.unwrap() as z.ZodType) : schema;
  const here = known || fields.has(inner);
  const inside = (key: string) => (at ? `${at}.${key}` : key);
  if (inner instanceof z.ZodObject) {
    return Object.entries(inner.shape).flatMap(([k, x]) => leaves(x as z.ZodType, inside(k)));
  }
  if (inner instanceof z.ZodArray) {
    const of = inner.element as z.ZodType;
    // a list of words is one field
    return of instanceof z.ZodObject ? leaves(of, inside('*')) : [[at, here]];
  }
  if (inner instanceof z.ZodRecord) return leaves(inner.valueType as z.ZodType, inside('*'));
  return [[at, here]];
}

test('every field that somebody types stands in the table', () => {
  const unknown = leaves(recordSchema)
    .filter(([at, known]) => !known && !/(^|\.)(id|format|formatVersion)$/.test(at))
    .map(([at]) => at);
  expect(unknown).toEqual([]);
  expect(RECORD_FIELDS.length).toBeGreaterThan(100);
});

test('figures carry the unit of their name, and their kind of ± fits it', () => {
  const UNITS: [RegExp, string][] = [
    [/Mm$/, 'mm'],
    [/Um$/, 'µm'],
    [/[a-z]C$/, '°C'],
    [/WmK$/, 'W/mK'],
    [/Rpm$/, 'rpm'],
    [/[a-z]W$/, 'W'],
    [/[a-z]S$/, 's'],
    [/DbA$/, 'dB(A)'],
    [/Share$/, '0–1'],
    [/Kg$/, 'kg'],
    [/Deg$/, '°'],
    [/Years$/, 'years'],
    [/Lps$/, 'L/s'],
    [/Pa$/, 'Pa'],
  ];
  const figures = RECORD_FIELDS.filter((f) => f.holds === 'figure');
  for (const { at, unit, plusMinus } of figures) {
    const name = UNITS.find(([end]) => end.test(at));
    if (name) expect([at, unit]).toEqual([at, name[1]]);
    const kind = { mm: 'length', '°C': 'level', 'dB(A)': 'level', '0–1': 'share' }[unit];
    if (kind) expect([at, plusMinus]).toEqual([at, kind]);
  }
  expect(figures.filter((f) => f.plusMinus === 'count').map((f) => f.at)).toEqual([
    'identity.year',
    'heatPipes.*.count',
    'heatPipes.*.bends',
    'finStacks.*.finCount',
  ]);
});

test('a field is found by the names or the places of what it stands in', () => {
  expect(fieldAt('dies.gpu.interface.bondLineUm')).toMatchObject({
    name: 'bond line',
    unit: 'µm',
    measured: 'package',
  });
  expect(fieldAt('heatPipes.0.along.2.fromMm')?.at).toBe('heatPipes.*.along.*.fromMm');
  expect(fieldAt('noise.sweep.3.rpm.fan-left')?.unit).toBe('rpm');
  expect(fieldAt('fans.psi')).toBeUndefined();
  expect(fieldAt('dies.gpu')).toBeUndefined();
  expect(fieldAt('nothing.at.all')).toBeUndefined();
});

test('what an estimate needs, what names a part, and what a part is called', () => {
  const needed = PART_LISTS.flatMap((list) =>
    fieldsOfPart(list)
      .filter((f) => f.needed)
      .map((f) => `${list}.${f.at}`),
  );
  expect(needed).toEqual([
    'dies.widthMm',
    'dies.lengthMm',
    'heatPipes.diameterMm',
    'finStacks.widthMm',
    'finStacks.heightMm',
    'finStacks.depthMm',
    'finStacks.finCount',
    'fans.impellerDiameterMm',
    'vents.widthMm',
    'vents.lengthMm',
  ]);
  const strict = RECORD_FIELDS.filter((f) => f.refersTo && !f.refersTo.free).map((f) => f.at);
  expect(strict).toEqual([
    'plates.*.dies',
    'heatPipes.*.along.*.part',
    'finStacks.*.fans',
    'finStacks.*.plates',
    'finStacks.*.pipesFromFan',
    'vents.*.fans',
    'vents.*.finStacks',
    'noise.sweep.*.rpm',
  ]);
  expect(Object.keys(PART_WORDS).sort()).toEqual([...PART_LISTS, 'settings'].sort());
  expect(fieldsOfMachine().map((f) => f.at)).toContain('shell.exhaustLimitC');
});
