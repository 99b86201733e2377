import { guessedBy, guessesSchema, NO_GUESSES } from './guesses';
import { errorOfGuess, isHit, recordsOfHits, type AnsweredGuess } from './hits';

let count = 0;
const guess = (over: Partial<AnsweredGuess> = {}): AnsweredGuess => ({
  id: `g${count++}`,
  by: 'Mara',
  at: '2026-03-01T10:00:00.000Z',
  cap: 36,
  watts: 80,
  machineId: 'm',
  machine: 'Tarnwick Ledger 14',
  answer: { p05: 70, p50: 80, p95: 90 },
  learned: false,
  ...over,
});

test('a guess on an end of the band is inside it, one beyond is not, without an answer it is neither', () => {
  expect([69.9, 70, 90, 90.1].map((watts) => isHit(guess({ watts })))).toEqual([
    false,
    true,
    true,
    false,
  ]);
  expect(isHit(guess({ answer: null }))).toBeNull();
  expect(errorOfGuess(guess({ answer: null }))).toBeNull();
  expect(errorOfGuess(guess({ answer: { p05: 0, p50: 0, p95: 0 } }))).toBeNull();
});

test('twice too much and half of it are equally far off, and lean to neither side', () => {
  const [own, ...none] = recordsOfHits([
    guess({ watts: 160, at: '2026-03-02T10:00:00.000Z', learned: true }),
    guess({ watts: 40, at: '2026-03-01T10:00:00.000Z' }),
    // not answered: it counts as guessed only
    guess({ answer: null, at: '2026-03-03T10:00:00.000Z', learned: true }),
  ]);
  expect(none).toEqual([]);
  expect(own).toMatchObject({ by: 'Mara', guesses: 3, answered: 2, learned: 1, inBand: 0 });
  expect(own!.offShare).toBeCloseTo(Math.log(2), 12);
  expect(own!.leanShare).toBeCloseTo(0, 12);
  // oldest first
  expect(own!.errors[0]).toBeCloseTo(-Math.log(2), 12);
  expect(own!.errors[1]).toBeCloseTo(Math.log(2), 12);
});

test('a person is one however the name is cased or composed; who guessed most comes first', () => {
  const records = recordsOfHits([
    guess({ by: 'Zoë', at: '2026-03-01T10:00:00.000Z' }),
    guess({ by: 'Mara' }),
    guess({ by: ' ZOE\u0308', at: '2026-03-02T10:00:00.000Z' }),
  ]);
  expect(records.map((r) => [r.by, r.guesses])).toEqual([
    [' ZOE\u0308', 2],
    ['Mara', 1],
  ]);
  expect(guessedBy({ ...NO_GUESSES, guesses: [guess({ by: 'ZOE\u0308' })] }, ' zoë')).toBe(true);
  expect(guessedBy({ ...NO_GUESSES, guesses: [guess()] }, 'Zoë')).toBe(false);
});

test('of many errors the newest fifty are kept, all count', () => {
  const many = Array.from({ length: 60 }, (_, i) =>
    guess({ watts: i < 10 ? 160 : 80, at: `2026-03-01T10:00:${String(i).padStart(2, '0')}.000Z` }),
  );
  const [own] = recordsOfHits(many);
  expect(own!.errors).toHaveLength(50);
  expect(own!.errors.every((e) => e === 0)).toBe(true);
  expect(own!.inBand).toBe(50);
  expect(own!.leanShare).toBeCloseTo(Math.log(2) / 6, 12);
});

test('nobody guessed, and nobody answered', () => {
  expect(recordsOfHits([])).toEqual([]);
  expect(recordsOfHits([guess({ answer: null })])[0]).toMatchObject({
    offShare: null,
    leanShare: null,
    errors: [],
  });
});

test.each([
  ['no name', { by: ' ' }],
  ['a name too long', { by: 'n'.repeat(61) }],
  ['no watts', { watts: 0 }],
  ['more than any has', { watts: 10_000 }],
  ['no moment', { at: 'today' }],
  ['a level out of bounds', { cap: 14 }],
])('%s is refused', (_, over) => {
  const kept = (more: object) => ({ ...NO_GUESSES, guesses: [{ ...guess(), ...more }] });
  expect(guessesSchema.safeParse(kept({})).success).toBe(true);
  expect(guessesSchema.safeParse(kept(over)).success).toBe(false);
});

test('two guesses of one id, or too many, are refused', () => {
  const twice = guess();
  expect(guessesSchema.safeParse({ ...NO_GUESSES, guesses: [twice, twice] }).success).toBe(false);
  const all = Array.from({ length: 201 }, () => guess());
  expect(guessesSchema.safeParse({ ...NO_GUESSES, guesses: all }).success).toBe(false);
  expect(guessesSchema.safeParse({ ...NO_GUESSES, guesses: all.slice(1) }).success).toBe(true);
});
