import { fitted, follow, MOST_ZOOM, tilesIn, toPhoto, toScreen, zoomed } from './photoView';

const SIZE = [4000, 3000] as const;
const PANE = { width: 800, height: 400 };

test('the whole photo fits its pane and stands in its middle', () => {
  const view = fitted(SIZE, PANE);
  expect(view.zoom).toBeCloseTo(400 / 3000, 12);
  expect(toScreen(view, [2000, 1500])).toEqual([400, 200]);
  expect(toPhoto(view, toScreen(view, [123, 456]))[0]).toBeCloseTo(123, 9);
});

test('nearer and farther keep the place under the hand, within the bounds of zoom', () => {
  const view = zoomed(fitted(SIZE, PANE), 6, [500, 300], SIZE, PANE);
  const at = toPhoto(view, [500, 300]);
  const nearer = zoomed(view, 2, [500, 300], SIZE, PANE);
  expect(toPhoto(nearer, [500, 300])[0]).toBeCloseTo(at[0], 6);
  expect(toPhoto(nearer, [500, 300])[1]).toBeCloseTo(at[1], 6);
  expect(zoomed(view, 1e6, [500, 300], SIZE, PANE).zoom).toBe(MOST_ZOOM);
  expect(zoomed(view, 1e-6, [500, 300], SIZE, PANE)).toEqual(fitted(SIZE, PANE));
});

test('a cursor that leaves the middle takes the photo along, not beyond its edge', () => {
  const near = zoomed(fitted(SIZE, PANE), 10, [400, 200], SIZE, PANE);
  const moved = follow(near, [3990, 1500], SIZE, PANE);
  const [x] = toScreen(moved, [3990, 1500]);
  expect(x).toBeLessThanOrEqual(PANE.width);
  expect(toScreen(moved, [4000, 1500])[0]).toBeGreaterThanOrEqual(PANE.width - 1e-6);
  const [cx, cy] = toPhoto(near, [400, 200]);
  expect(follow(near, [cx, cy], SIZE, PANE)).toEqual(near);
});

test('squares of a stretch, none beyond the photo', () => {
  expect(tilesIn([500, 500, 530, 530], [1200, 700], 512)).toEqual([
    { column: 0, row: 0 },
    { column: 1, row: 0 },
    { column: 0, row: 1 },
    { column: 1, row: 1 },
  ]);
  expect(tilesIn([-50, -50, 9000, 9000], [1200, 700], 512)).toHaveLength(6);
  expect(tilesIn([1000, 600, 1024, 700], [1024, 700], 512).every((t) => t.column < 2)).toBe(true);
});
