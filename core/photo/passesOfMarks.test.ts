import { passesOfMarks, type PipePass } from './passesOfMarks';
import type { PhotoMark, PhotoMarks } from './photoMarks';
import { alongFromPhoto, renewedPasses, reversed } from './renewedPasses';

const SIZE = [4000, 3000] as const;
const LENS = { focalPx: null };
type Mm = readonly [number, number];
/** Ten pixels a mm, seen straight from above. */
const px = (at: readonly Mm[]) => at.map(([x, y]): [number, number] => [10 * x, 10 * y]);
const box = (x: number, y: number, w: number, h: number): Mm[] => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
];
const area = (figure: string, at: readonly Mm[]): PhotoMark => ({
  id: figure,
  mark: { kind: 'area', points: px(at) },
  figure,
});
const course = (pipe: string, at: readonly Mm[]): PhotoMark => ({
  id: `${pipe}-course`,
  mark: { kind: 'path', points: px(at) },
  figure: `heatPipes.${pipe}.lengthMm`,
});
const marked = (...marks: PhotoMark[]): PhotoMarks => ({
  references: [
    { id: 'r', what: 'ruler', item: { kind: 'length', from: [0, 0], to: [1000, 0], mm: 100 } },
  ],
  marks,
});
const LEFT = area('finStacks.fins-left.widthMm', box(20, 20, 60, 24));
const PLATE = area('plates.plate-cpu.widthMm', box(120, 100, 40, 40));
const passes = (marks: PhotoMarks) => passesOfMarks(SIZE, LENS, marks);

test('a course from a stack, round a corner, over a plate: where it enters and leaves each, along its way', () => {
  // along the stack for 50 mm, on for 60, down 110 through the plate's upper edge to its middle
  const pipe = course('p', [
    [30, 32],
    [140, 32],
    [140, 120],
  ]);
  expect(passes(marked(LEFT, PLATE, pipe))).toEqual([
    {
      pipe: 'p',
      mark: 'p-course',
      passes: [
        { part: 'fins-left', fromMm: 0, toMm: 50 },
        { part: 'plate-cpu', fromMm: 178, toMm: 198 },
      ],
    },
  ]);
});

test('one that comes back passes a part twice; one that grazes a corner does not', () => {
  const back = course('p', [
    [10, 30],
    [100, 30],
    [100, 40],
    [10, 40],
  ]);
  expect(passes(marked(LEFT, back))[0]!.passes).toEqual([
    { part: 'fins-left', fromMm: 10, toMm: 70 },
    { part: 'fins-left', fromMm: 120, toMm: 180 },
  ]);
  const grazing = course('p', [
    [79.5, 10],
    [79.5, 20.5],
    [100, 20.5],
  ]);
  expect(passes(marked(LEFT, grazing))).toEqual([]);
});

test('outlines over each other: the first counts as far as it reaches, so that positions stay in order', () => {
  const over = area('plates.plate-gpu.widthMm', box(60, 10, 60, 40));
  const pipe = course('p', [
    [0, 30],
    [200, 30],
  ]);
  expect(passes(marked(over, LEFT, pipe))[0]!.passes).toEqual([
    { part: 'fins-left', fromMm: 20, toMm: 80 },
    { part: 'plate-gpu', fromMm: 80, toMm: 120 },
  ]);
});

test('a raised stack is passed where it stands, not where it is seen', () => {
  // a camera 600 px focal length over the corner of the picture sees a raised thing farther out
  const lens = { focalPx: 3000 };
  const raised = (aboveMm: number): PhotoMark => ({
    ...LEFT,
    mark: { ...LEFT.mark, aboveMm },
  });
  const pipe = course('p', [
    [10, 30],
    [100, 30],
  ]);
  const flat = passesOfMarks(SIZE, lens, marked(raised(0), pipe))[0]!.passes[0]!;
  const high = passesOfMarks(SIZE, lens, marked(raised(8), pipe))[0]!.passes[0]!;
  // seen left of the middle at 200 mm, it stands nearer to the middle: 8 mm of 300 mm distance
  expect(flat).toMatchObject({ fromMm: 10, toMm: 70 });
  expect(high.fromMm).toBeCloseTo(10 + (180 * 8) / 300, 0);
  expect(high.toMm).toBeCloseTo(70 + (120 * 8) / 300, -0.5);
});

test('nothing without a reference, a course of a pipe or an outline of a part', () => {
  const pipe = course('p', [
    [30, 32],
    [140, 32],
  ]);
  expect(passes({ ...marked(LEFT, pipe), references: [] })).toEqual([]);
  expect(passes(marked(LEFT))).toEqual([]);
  expect(passes(marked(pipe))).toEqual([]);
  expect(passes(marked(LEFT, { ...pipe, figure: null }))).toEqual([]);
  expect(passes(marked({ ...LEFT, figure: 'pads.pad-1.widthMm' }, pipe))).toEqual([]);
});

const FOUND: PipePass[] = [
  { part: 'fins-left', fromMm: 0, toMm: 50 },
  { part: 'plate-cpu', fromMm: 178, toMm: 198 },
];
const record = (along: unknown) => ({ heatPipes: [{ id: 'other' }, { id: 'p', along }] });
const renewed = (along: unknown) =>
  renewedPasses(record(along), [{ pipe: 'p', mark: 'm', passes: FOUND }], () => 198.4);

test('what differs from the record is told, what stands there is not', () => {
  expect(renewed(undefined)).toEqual([
    { pipe: 'p', index: 1, mark: 'm', before: [], after: FOUND },
  ]);
  expect(renewed(FOUND)).toEqual([]);
  // within two mm, plain or with an origin
  expect(
    renewed([{ part: 'fins-left', fromMm: 1, toMm: { value: 51, plusMinus: 1 } }, FOUND[1]]),
  ).toEqual([]);
  expect(renewed([FOUND[0], { ...FOUND[1], toMm: 195 }])).toHaveLength(1);
  // positions that were not told are
  expect(renewed([{ part: 'fins-left' }, { part: 'plate-cpu' }])[0]!.after).toEqual(FOUND);
  expect(renewedPasses({}, [{ pipe: 'p', mark: 'm', passes: FOUND }], () => null)).toEqual([]);
  expect(renewedPasses(record([]), [{ pipe: 'gone', mark: 'm', passes: FOUND }], () => 1)).toEqual(
    [],
  );
});

test('a course drawn from the other end is told from the end that the record begins at', () => {
  const other = reversed(FOUND, 198.4);
  expect(other).toEqual([
    { part: 'plate-cpu', fromMm: 0, toMm: 20 },
    { part: 'fins-left', fromMm: 148, toMm: 198 },
  ]);
  expect(renewed(other)).toEqual([]);
  expect(renewed([{ part: 'plate-cpu' }, { part: 'fins-left' }])[0]!.after).toEqual(other);
});

test('as kept: from the photo, each with its ±, what else stood there stays', () => {
  const from = { photo: 'photo-1', clickMm: 0.1, scaleShare: 0.01 };
  const along = alongFromPhoto(
    [
      { part: 'plate-cpu', note: 'soldered', toMm: { value: 190, note: 'by thread' } },
      { part: 'gone' },
    ],
    { after: FOUND, mark: 'm' },
    from,
  );
  const own = { origin: 'photo', photo: 'photo-1', mark: 'm' };
  expect(along).toEqual([
    {
      part: 'fins-left',
      // √(2 · 0.1² + 1/12) mm
      fromMm: { value: 0, plusMinus: 0.3, ...own },
      // and a hundredth of 50 mm
      toMm: { value: 50, plusMinus: 0.6, scaleShare: 0.01, ...own },
    },
    {
      part: 'plate-cpu',
      note: 'soldered',
      fromMm: { value: 178, plusMinus: 1.8, scaleShare: 0.01, ...own },
      toMm: { value: 198, plusMinus: 2, scaleShare: 0.01, note: 'by thread', ...own },
    },
  ]);
});
