import { LINE_PX, placeLabels, spreadLabels } from './placeLabels';

const at = (x: number, y: number, widthPx = 50) => ({ x, y, widthPx });

describe('labels beside points', () => {
  test('those that do not touch stay', () => {
    expect(placeLabels([at(0, 0), at(50, 0), at(0, 14), at(200, 3)])).toEqual([0, 0, 0, 0]);
  });

  test('those that would lie on another go a line down or up; where that is taken they are left out', () => {
    expect(placeLabels([at(0, 100), at(10, 100), at(20, 100), at(49, 101)])).toEqual([
      0,
      14,
      -14,
      null,
    ]);
    expect(placeLabels([at(0, 100), at(0, 114), at(0, 104)])).toEqual([0, 0, null]);
  });

  test('no two of many lie on each other', () => {
    const boxes = Array.from({ length: 40 }, (_, i) => at((i * 37) % 90, (i * 53) % 120));
    const shifts = placeLabels(boxes);
    const drawn = boxes.flatMap((b, i) =>
      shifts[i] === null ? [] : [{ ...b, y: b.y + shifts[i]! }],
    );
    for (const [i, a] of drawn.entries()) {
      for (const b of drawn.slice(i + 1)) {
        expect(Math.abs(a.x - b.x) >= 50 || Math.abs(a.y - b.y) >= 14).toBe(true);
      }
    }
    expect(drawn.length).toBeGreaterThan(5);
  });
});

describe('labels of a column', () => {
  const places = (ys: number[], top = 0, bottom = 200) =>
    spreadLabels(ys, top, bottom).map((shift, i) => (shift === null ? null : ys[i]! + shift));

  test('those with room stay, those without stand around their middle, in their order', () => {
    expect(places([100, 20, 60])).toEqual([100, 20, 60]);
    expect(places([100, 100])).toEqual([93, 107]);
    expect(places([50, 100, 102, 98])).toEqual([50, 100, 114, 86]);
    // the pair that is moved meets a third one
    expect(places([100, 110, 90])).toEqual([100, 114, 86]);
  });

  test('none leaves the column', () => {
    expect(places([1, 2, 3])).toEqual([0, 14, 28]);
    expect(places([198, 199, 200])).toEqual([172, 186, 200]);
  });

  test('with more of them than lines the last given ones are left out', () => {
    const out = places(
      Array.from({ length: 30 }, () => 50),
      0,
      10 * LINE_PX,
    );
    expect(out.filter((y) => y !== null)).toHaveLength(11);
    expect(out.slice(11).every((y) => y === null)).toBe(true);
    const sorted = out.slice(0, 11).sort((a, b) => a! - b!);
    expect(sorted).toEqual(Array.from({ length: 11 }, (_, k) => k * LINE_PX));
    expect(spreadLabels([], 0, 100)).toEqual([]);
    expect(spreadLabels([5], 100, 0)).toEqual([null]);
  });
});
