import { bendsOf } from './bends';

type P = [number, number];
/** A path of straight ways and curves clicked at so many places. */
function path(
  ...parts: ({ go: number } | { turn: number; radius: number; clicks: number })[]
): P[] {
  let [x, y, heading] = [0, 0, 0];
  const out: P[] = [[0, 0]];
  for (const part of parts) {
    if ('go' in part) {
      x += part.go * Math.cos(heading);
      y += part.go * Math.sin(heading);
      out.push([x, y]);
      continue;
    }
    const turn = (part.turn * Math.PI) / 180;
    const side = Math.sign(turn);
    const [cx, cy] = [
      x - side * part.radius * Math.sin(heading),
      y + side * part.radius * Math.cos(heading),
    ];
    for (let k = 1; k <= part.clicks; k++) {
      const h = heading + (turn * k) / part.clicks;
      x = cx + side * part.radius * Math.sin(h);
      y = cy - side * part.radius * Math.cos(h);
      out.push([x, y]);
    }
    heading += turn;
  }
  return out;
}
const turnsOf = (points: P[]) => bendsOf(points).map((b) => Math.round(b.turnDeg));

test('a straight path has none; the hand’s tremble is none', () => {
  expect(
    turnsOf([
      [0, 0],
      [50, 0],
    ]),
  ).toEqual([]);
  expect(
    turnsOf([
      [0, 0],
      [50, 3],
      [100, 0],
      [150, 2],
    ]),
  ).toEqual([]);
});

test('a corner clicked once is one bend, to each side', () => {
  expect(
    turnsOf([
      [0, 0],
      [50, 0],
      [50, 50],
    ]),
  ).toEqual([90]);
  expect(
    turnsOf([
      [0, 0],
      [50, 0],
      [50, -50],
      [0, -50],
    ]),
  ).toEqual([-90, -90]);
  expect(
    turnsOf([
      [0, 0],
      [50, 0],
      [90, 30],
      [140, 30],
    ]),
  ).toEqual([37, -37]);
});

test.each([1, 2, 3, 5, 9])('one curve clicked at %d places is one bend', (clicks) => {
  const points = path({ go: 60 }, { turn: 90, radius: 25, clicks }, { go: 70 });
  expect(turnsOf(points)).toEqual([90]);
});

test('curves one after the other are as many, one way or the other', () => {
  const s = path(
    { go: 50 },
    { turn: 45, radius: 20, clicks: 3 },
    { go: 40 },
    { turn: -45, radius: 20, clicks: 3 },
    { go: 50 },
  );
  expect(turnsOf(s)).toEqual([45, -45]);
  const u = path(
    { go: 50 },
    { turn: 90, radius: 15, clicks: 4 },
    { go: 90 },
    { turn: 90, radius: 15, clicks: 4 },
    { go: 50 },
  );
  expect(turnsOf(u)).toEqual([90, 90]);
});

test('a wide curve clicked often is one bend', () => {
  expect(turnsOf(path({ go: 60 }, { turn: 60, radius: 120, clicks: 6 }, { go: 60 }))).toEqual([60]);
});

test('over ten degrees it is one', () => {
  const at = (deg: number): P[] => [
    [0, 0],
    [50, 0],
    [50 + 50 * Math.cos((deg * Math.PI) / 180), 50 * Math.sin((deg * Math.PI) / 180)],
  ];
  expect(turnsOf(at(9.9))).toEqual([]);
  expect(turnsOf(at(10.1))).toEqual([10]);
});
