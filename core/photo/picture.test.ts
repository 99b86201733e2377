import { isIn, lightAt, linearLight, pictureOf, WHITE } from './picture';

test('light is linear: middle grey of a file is a fifth of white', () => {
  // IEC 61966-2-1: 0.5 of a file is 0.2140 of light, 0.04 is on the straight part
  expect(linearLight(0.5)).toBeCloseTo(0.214, 4);
  expect(linearLight(0.04)).toBeCloseTo(0.04 / 12.92, 12);
  expect(linearLight(0.04045)).toBeCloseTo(0.04045 / 12.92, 4);
  expect(linearLight(1)).toBeCloseTo(1, 12);
});

test('8 and 16 bit say the same; primaries add up to white by their luminance', () => {
  const small = pictureOf(Uint8Array.of(255, 0, 0, 0, 255, 0, 0, 0, 255, 128, 128, 128), 2, 2);
  expect([...small.light].map((x) => Number((x / WHITE).toFixed(3)))).toEqual([
    0.213, 0.715, 0.072, 0.216,
  ]);
  const deep = pictureOf(
    Uint16Array.from({ length: 12 }, () => 128 * 257),
    2,
    2,
  );
  expect(deep.light[0]! / WHITE).toBeCloseTo(0.2159, 3);
});

test('between pixels light goes evenly from middle to middle, and on beyond the edge', () => {
  const picture = { width: 3, height: 2, light: Uint16Array.of(0, WHITE, 0, 0, WHITE, 0) };
  expect(lightAt(picture, 1.5, 0.5)).toBe(1);
  expect(lightAt(picture, 1, 1)).toBeCloseTo(0.5, 9);
  expect(lightAt(picture, 1.25, 1.9)).toBeCloseTo(0.75, 9);
  expect(lightAt(picture, 0, 0)).toBe(0);
  expect(lightAt(picture, 99, 99)).toBe(0);
  expect(isIn(picture, [3, 2])).toBe(true);
  expect(isIn(picture, [3.01, 1])).toBe(false);
  expect(isIn(picture, [1, -0.01])).toBe(false);
});
