import { LINE_PX, placeLabels, spreadLabels } from './placeLabels';

describe('names beside points', () => {
  const at = (x: number, y: number, widthPx = 50) => ({ x, y, widthPx });
  const place = (...points: ReturnType<typeof at>[]) => placeLabels(points, 0, 400);

  test('towards the middle, at the height of their points', () => {
    expect(place(at(50, 20), at(350, 20), at(50, 80))).toEqual([
      { side: 'right', shiftPx: 0, widthPx: 50 },
      { side: 'left', shiftPx: 0, widthPx: 50 },
      { side: 'right', shiftPx: 0, widthPx: 50 },
    ]);
  });

  test('those of one place go a line down, a line up, to the other side, and are left out', () => {
    const seven = Array.from({ length: 7 }, () => at(150, 100));
    expect(place(...seven).map((p) => p && [p.side, p.shiftPx])).toEqual([
      ['right', 0],
      ['right', 14],
      ['right', -14],
      ['left', 0],
      ['left', 14],
      ['left', -14],
      null,
    ]);
  });

  test('the shortest have their place first', () => {
    const sides = placeLabels([at(150, 100, 90), at(150, 100, 30)], 0, 400);
    expect(sides.map((p) => p?.shiftPx)).toEqual([14, 0]);
  });

  test('none lies on another point', () => {
    // one stands where the name would begin
    expect(place(at(100, 100), at(120, 100))[0]).toMatchObject({ side: 'right', shiftPx: 14 });
    expect(place(at(100, 100), at(120, 100), at(120, 114), at(120, 86))[0]).toMatchObject({
      side: 'left',
      shiftPx: 0,
    });
  });

  test('none leaves the drawing: a long one is cut, and where little would be left of it not told', () => {
    expect(placeLabels([at(30, 50, 300)], 0, 200)).toEqual([
      { side: 'right', shiftPx: 0, widthPx: 162 },
    ]);
    expect(placeLabels([at(180, 50, 300)], 0, 200)).toEqual([
      { side: 'left', shiftPx: 0, widthPx: 172 },
    ]);
    expect(placeLabels([at(50, 50, 300)], 0, 100)).toEqual([null]);
    // a short one needs no more than itself
    expect(placeLabels([at(50, 50, 40)], 0, 100)).toEqual([
      { side: 'right', shiftPx: 0, widthPx: 40 },
    ]);
  });

  test('no two of many lie on each other', () => {
    const points = Array.from({ length: 40 }, (_, i) => at((i * 137) % 390, (i * 53) % 120));
    const boxes = place(...points).flatMap((p, i) =>
      p
        ? [
            {
              x: p.side === 'right' ? points[i]!.x + 8 : points[i]!.x - 8 - p.widthPx,
              y: points[i]!.y + p.shiftPx,
            },
          ]
        : [],
    );
    for (const [i, a] of boxes.entries()) {
      for (const b of boxes.slice(i + 1)) {
        expect(Math.abs(a.x - b.x) >= 50 || Math.abs(a.y - b.y) >= 14).toBe(true);
      }
    }
    expect(boxes.length).toBeGreaterThan(10);
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
