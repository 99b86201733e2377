import { mergeDocuments } from '../documents/mergeDocuments';
import { parseRecord } from '../record/parseRecord';
import { setAt } from '../record/plainJson';
import { exampleRecord } from '../test-support/exampleRecord';
import { seenAt, type TestCamera } from '../test-support/rayCaster';
import { fieldsOfMark, figuresOfMark } from './figuresOfMark';
import { KNOWN_THINGS, pointsOf, referenceItem, SHELL, sizesOf } from './knownThings';
import { isSized } from './marksFile';
import { measureKept } from './measureKept';
import { marksFileOf, photoMarksSchema, type PhotoMarks } from './photoMarks';
import { parseMarks } from './measures';
import { placesOfMarks } from './placesOfMarks';
import { pathOfFigure, renewalsOf } from './renewals';

const SIZE = [4000, 3000] as const;
const LENS = { focalPx: 3300 };
const CAMERA: TestCamera = {
  widthPx: 4000,
  heightPx: 3000,
  focalPx: 3300,
  distanceMm: 450,
  tiltDeg: 15,
  tiltAxisDeg: 30,
  rollDeg: 4,
  lookAtMm: [170, 120],
};
/** Of the machine seen from below: from the user’s right and from the rear, mm. */
const px = (x: number, y: number, up = 0): [number, number] => {
  const [u, v] = seenAt(CAMERA, [x, y, up]);
  return [u, v];
};
const round = (x: number, y: number, r: number, up: number) =>
  [0.3, 1.5, 2.9, 4.1, 5.5].map((t) => px(x + r * Math.cos(t), y + r * Math.sin(t), up));
const box = (x: number, y: number, w: number, d: number) => [
  px(x, y),
  px(x + w, y),
  px(x + w, y + d),
  px(x, y + d),
];
const shell = {
  id: 's',
  what: SHELL,
  item: referenceItem('rectangle', box(0, 0, 355, 245), [355, 245]),
};
const MARKS: PhotoMarks = {
  references: [shell],
  marks: [
    {
      id: 'fan',
      mark: { kind: 'circle', points: round(60, 70, 29, 5), aboveMm: 5 },
      figure: 'fans.fan-right.impellerDiameterMm',
    },
    {
      id: 'stack',
      mark: { kind: 'area', points: box(20, 4, 70, 24) },
      figure: 'finStacks.fins-right.widthMm',
    },
    {
      id: 'pipe',
      mark: {
        kind: 'path',
        points: [px(50, 20), px(50, 110), px(250, 110), px(250, 20)],
      },
      figure: 'heatPipes.pipe.lengthMm',
    },
  ],
};
const PHOTO = 'photo-1';
const record = exampleRecord('two-fan-shared-pipes');
const measured = (marks: PhotoMarks) => measureKept(null, SIZE, LENS, marks);
const renewals = (r: unknown, marks = MARKS) => renewalsOf(r, PHOTO, marks, measured(marks));

test('marks tell their figure and what they tell besides, each with its ±, in the record’s own places', () => {
  const found = renewals(record);
  const at = Object.fromEntries(found.map((r) => [r.path, r]));
  expect(at['fans.fan-right.impellerDiameterMm']!.value).toBeCloseTo(58, 0);
  expect(at['finStacks.fins-right.widthMm']!.value).toBeCloseTo(70, 1);
  expect(at['finStacks.fins-right.depthMm']!.value).toBeCloseTo(24, 1);
  expect(at['heatPipes.pipe.lengthMm']!.value).toBeCloseTo(380, 0);
  expect(at['heatPipes.pipe.bends']!.after).toMatchObject({ value: 2, plusMinus: 0 });
  const fan = at['fans.fan-right.impellerDiameterMm']!;
  expect(fan.at).toEqual(pathOfFigure(record, fan.path));
  expect(fan).toMatchObject({ before: 58, other: 'agrees', isSurer: false, mark: 'fan' });
  expect(fan.after).toMatchObject({ origin: 'photo', photo: PHOTO, mark: 'fan' });
  const { scaleShare } = fan.after as unknown as { scaleShare: number };
  expect(scaleShare).toBeGreaterThan(0);
  expect(scaleShare * fan.value).toBeLessThanOrEqual(fan.plusMinus);
});

test('once taken nothing differs; a reference of another size makes all of its figures differ, and no others', () => {
  const taken = renewals(record).reduce((r: unknown, x) => setAt(r, x.at, x.after), record);
  expect(parseRecord(taken).issues.filter((i) => i.kind === 'impossible')).toEqual([]);
  expect(renewals(taken)).toEqual([]);
  const larger = {
    ...MARKS,
    references: [
      { ...shell, item: referenceItem('rectangle', pointsOf(shell.item), [362.1, 249.9]) },
    ],
  };
  const moved = renewals(taken, larger);
  expect(moved.map((r) => r.path).sort()).toEqual([
    'fans.fan-right.impellerDiameterMm',
    'finStacks.fins-right.depthMm',
    'finStacks.fins-right.widthMm',
    'heatPipes.pipe.lengthMm',
  ]);
  const stack = moved.find((r) => r.path === 'finStacks.fins-right.widthMm')!;
  expect(stack.value / stack.before!).toBeCloseTo(1.02, 3);
  expect(stack).toMatchObject({ other: null, isSurer: false });
});

test('what a calliper knows better is told, and what differs from it by more than both ±; what was assumed is neither', () => {
  const fan = (figure: unknown) =>
    renewals(setAt(record, ['fans', 1, 'impellerDiameterMm'], figure)).find(
      (r) => r.mark === 'fan',
    )!;
  expect(fan({ value: 58, plusMinus: 0.01 })).toMatchObject({ other: 'agrees', isSurer: true });
  expect(fan({ value: 58, plusMinus: 1 })).toMatchObject({ other: 'agrees', isSurer: false });
  expect(fan({ value: 55, plusMinus: 0.2 })).toMatchObject({ other: 'differs' });
  // three of the wider one’s deviations off, less than both together allow is none
  expect(fan({ value: 55, plusMinus: 2 })).toMatchObject({ other: 'agrees', isSurer: false });
  for (const origin of ['assumed', 'estimated']) {
    expect(fan({ value: 50, plusMinus: 0.01, origin })).toMatchObject({
      other: null,
      isSurer: false,
    });
  }
  expect(fan({ value: 50, plusMinus: 0.01, origin: 'photo', photo: 'another' })).toMatchObject({
    other: 'differs',
    isSurer: true,
  });
});

test('a note stays with its figure; of two marks of one figure the surer one counts; a part that is gone is left out', () => {
  const noted = setAt(record, ['fans', 1, 'impellerDiameterMm'], { value: 57, note: 'worn' });
  const fan = renewals(noted).find((r) => r.mark === 'fan')!;
  expect(fan.after.note).toBe('worn');
  const [first] = MARKS.marks;
  const rough = {
    id: 'rough',
    mark: { ...first!.mark, points: first!.mark.points.slice(0, 3) },
    figure: first!.figure,
  };
  for (const marks of [
    [rough, first!],
    [first!, rough],
  ]) {
    expect(renewals(record, { ...MARKS, marks }).map((r) => r.mark)).toEqual(['fan']);
  }
  const gone = { ...first!, figure: 'fans.none.impellerDiameterMm' };
  expect(renewals(record, { ...MARKS, marks: [gone] })).toEqual([]);
});

test('places of parts in the outline of the shell, from the user’s left and from the rear', () => {
  expect(placesOfMarks(SIZE, LENS, MARKS)).toEqual([
    { part: 'fan-right', xMm: 355 - 60, yMm: 70 },
    { part: 'fins-right', xMm: 355 - 55, yMm: 16 },
  ]);
  expect(
    placesOfMarks(SIZE, LENS, { ...MARKS, references: [{ ...shell, what: 'ruler' }] }),
  ).toEqual([]);
});

test('a mark is of a figure that it can tell, and of no other', () => {
  expect(fieldsOfMark('fins').map((f) => f.at)).toEqual(['finStacks.*.finCount']);
  expect(fieldsOfMark('angle')).toEqual([]);
  expect(fieldsOfMark('length').every((f) => f.unit === 'mm')).toBe(true);
  const circle = { id: 'x', value: 5, plusMinus: 0.1, unit: 'mm', note: null } as const;
  expect(figuresOfMark('fans.a.maxRpm', 'circle', circle)).toEqual([]);
  expect(figuresOfMark('fans.a.impellerDiameterMm', 'circle', { ...circle, value: null })).toEqual(
    [],
  );
  const fins = {
    id: 'x',
    value: 64,
    plusMinus: 0.3,
    unit: 'count',
    note: null,
    thicknessMm: 0.2,
  } as const;
  expect(figuresOfMark('finStacks.a.finCount', 'fins', fins).map((f) => [f.path, f.value])).toEqual(
    [
      ['finStacks.a.finCount', 64],
      ['finStacks.a.finThicknessMm', 0.2],
    ],
  );
});

test('known things are references that the measure command takes; sizes and points come back', () => {
  for (const thing of KNOWN_THINGS) {
    const points =
      thing.kind === 'length'
        ? [
            [1, 2],
            [90, 3],
          ]
        : [
            [0, 0],
            [90, 2],
            [91, 60],
            [1, 58],
          ];
    const sizes = [thing.widthMm ?? thing.mm ?? thing.diameterMm ?? 0.5, thing.heightMm ?? 0.2];
    const item = referenceItem(thing.kind, points as [number, number][], sizes, 3);
    expect(pointsOf(item)).toEqual(thing.kind === 'lens' ? [] : points);
    if (isSized(item)) {
      expect(sizesOf(item)).toEqual(thing.kind === 'rectangle' ? sizes : sizes.slice(0, 1));
      expect(item.aboveMm).toBe(3);
    }
    const marks = photoMarksSchema.parse({
      references: [{ id: 'r', what: thing.what, item }],
      marks: [],
    });
    // an edge or a lens alone gives no scale
    const ruler = { kind: 'length' as const, from: [0, 0], to: [9, 0], mm: 9 };
    const { scale } = marksFileOf(marks);
    expect(parseMarks({ scale: [...scale, ruler], marks: [] }).scale).toEqual([item, ruler]);
  }
});

test('two marks of one name are refused at the second', () => {
  const [first] = MARKS.marks;
  const refused = photoMarksSchema.safeParse({ ...MARKS, marks: [first, first] });
  expect(refused.error?.issues[0]).toMatchObject({
    path: ['marks', 1, 'id'],
    message: 'there is another mark “fan”',
  });
});

test('what two windows mark is joined mark by mark; a point that both moved is asked for, of that mark alone', () => {
  const [fan, stack, pipe] = MARKS.marks;
  const moved = (by: number) => ({
    ...fan!,
    mark: { ...fan!.mark, points: fan!.mark.points.map(([x, y]): [number, number] => [x + by, y]) },
  });
  const base = { ...MARKS, marks: [fan!] };
  const joined = mergeDocuments(
    base,
    { ...base, marks: [fan!, stack!] },
    { ...base, marks: [moved(3), pipe!] },
  );
  expect(joined.conflicts).toEqual([]);
  expect(joined.value.marks.map((m) => m.id).sort()).toEqual(['fan', 'pipe', 'stack']);
  expect(joined.value.marks.find((m) => m.id === 'fan')).toEqual(moved(3));
  const both = mergeDocuments(base, { ...base, marks: [moved(1)] }, { ...base, marks: [moved(2)] });
  expect(both.conflicts.map((c) => c.path)).toEqual(['marks.fan.mark.points']);
  const references = mergeDocuments(
    MARKS,
    { ...MARKS, references: [shell, { ...shell, id: 'mine' }] },
    { ...MARKS, references: [shell, { ...shell, id: 'theirs' }] },
  );
  expect(references.conflicts).toEqual([]);
  expect(references.value.references).toHaveLength(3);
});
