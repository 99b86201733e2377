import fc from 'fast-check';
import { GOALS } from '../service/goals';
import { STEP_KINDS, openUpLog, type OpenUpLog } from '../service/openUpLog';

/** Names from a few, so that many lead nowhere or to themselves, as a file may bring them. */
const NAMES = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'];
const id = fc.constantFrom(...NAMES);
const some = <T>(one: fc.Arbitrary<T>, most = 4) => fc.array(one, { maxLength: most });
/** Names, none twice. */
const names = (most = 4) => fc.uniqueArray(id, { maxLength: most });
/** Things with a name of their own. */
const named = <T extends { id: string }>(one: fc.Arbitrary<T>, most = 4) =>
  fc.uniqueArray(one, { maxLength: most, selector: (x) => x.id });
const maybe = <T>(one: fc.Arbitrary<T>) => fc.option(one, { nil: undefined, freq: 2 });
const mm = fc.integer({ min: 0, max: 400 });
const nasty = fc.constantFrom(
  'Cover',
  '<img src=x onerror=alert(1)>',
  '1. # *x*',
  '"&amp;\'',
  '😀 غطاء',
);

/** Any log that the format takes. */
export const anyLog: fc.Arbitrary<OpenUpLog> = fc
  .record({
    format: fc.constant('zugluft-openup'),
    formatVersion: fc.constant(1),
    layers: named(fc.record({ id, name: nasty, widthMm: maybe(mm), depthMm: maybe(mm) }), 2),
    groups: fc.uniqueArray(
      fc
        .record({ at: fc.integer({ min: 0, max: 2 }), lengthMm: maybe(fc.constantFrom(3, 5, 8)) })
        .map(({ at, lengthMm }) => ({ id: NAMES[at]!, letter: 'ABC'[at]!, lengthMm })),
      { maxLength: 3, selector: (g) => g.id },
    ),
    screws: named(
      fc.record({
        id,
        layer: id,
        group: maybe(id),
        xMm: maybe(mm),
        yMm: maybe(mm),
        printed: maybe(fc.integer({ min: 1, max: 9 })),
        onArrival: fc.constantFrom('there', 'missing', 'stripped', 'not-looked'),
        out: fc.boolean(),
        back: maybe(fc.oneof(id, fc.constantFrom('own', 'lost'))),
      }),
      7,
    ),
    connectors: named(fc.record({ id, name: nasty, off: fc.boolean(), on: fc.boolean() })),
    parts: named(
      fc.record({
        id,
        name: nasty,
        kind: maybe(fc.constantFrom('battery', 'fan', 'memory', 'port')),
        alone: maybe(fc.boolean()),
        onlyWith: names(2),
      }),
    ),
    strips: named(fc.record({ id, name: nasty, off: fc.boolean(), on: fc.boolean() })),
    steps: named(
      fc.record({
        id,
        name: nasty,
        act: maybe(fc.constantFrom(...STEP_KINDS)),
        layer: maybe(id),
        needs: some(fc.oneof(id, fc.array(id, { minLength: 1, maxLength: 3 })), 3),
        reaches: some(fc.constantFrom(...GOALS.map((g) => g.id)), 2),
        screws: names(),
        connectors: names(),
        parts: names(2),
        strips: names(2),
        state: fc.constantFrom('planned', 'done', 'skipped', 'went-wrong'),
        seconds: maybe(fc.integer({ min: 0, max: 999 })),
        note: maybe(nasty),
      }),
      6,
    ),
  })
  // as it comes out of a file: what is not said is not there
  .map((log) => openUpLog.parse(JSON.parse(JSON.stringify(log))));
