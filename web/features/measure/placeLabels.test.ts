import { placeLabels } from './placeLabels';

test('of two that would lie on each other the first stands; beside and below there is room', () => {
  const placed = placeLabels(
    [
      { text: 'fan-left · 58.0 mm', x: 50, y: 100 },
      { text: 'fan-right', x: 60, y: 104 },
      { text: 'fins', x: 50, y: 120 },
      { text: 'pipe', x: 200, y: 100 },
    ],
    800,
  );
  expect(placed.map((p) => p?.text ?? null)).toEqual(['fan-left · 58.0 mm', null, 'fins', 'pipe']);
});

test('nothing ends beyond the edge, nor over the upper one; what has no words takes no room', () => {
  const [right, top, none, same] = placeLabels(
    [
      { text: 'twelve chars', x: 395, y: 50 },
      { text: 'top', x: 20, y: -8 },
      { text: '', x: 100, y: 200 },
      { text: 'here', x: 100, y: 200 },
    ],
    400,
  );
  expect(right!.x + 12 * 7.3).toBeLessThan(400);
  expect(top!.y).toBeGreaterThan(10);
  expect(none).toBeNull();
  expect(same).not.toBeNull();
});
