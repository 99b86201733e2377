import fc from 'fast-check';
import { backTogether } from './backTogether';
import { endBack, looseCheck } from './benchEdits';
import { openUpLog, type OpenUpLog } from './openUpLog';
import { screwBalance } from './screwBalance';
import { screwWarnings } from './screwWarnings';

/** Twelve screws in four groups, one missing on arrival: a base cover of 340 mm by 240 mm. */
function log(change: (l: OpenUpLog) => void = () => undefined): OpenUpLog {
  const places: [string, string, number, number][] = [
    ['r1', 'long', 10, 10],
    ['r2', 'long', 120, 10],
    ['r3', 'long', 220, 10],
    ['r4', 'long', 330, 10],
    ['m1', 'mid', 10, 120],
    ['m2', 'mid', 330, 120],
    ['c1', 'inner', 140, 120],
    ['c2', 'inner', 200, 120],
    ['f1', 'short', 10, 230],
    ['f2', 'short', 120, 230],
    ['f3', 'short', 220, 230],
    ['f4', 'short', 330, 230],
  ];
  const made = openUpLog.parse({
    format: 'zugluft-openup',
    formatVersion: 1,
    layers: [{ id: 'base', name: 'base cover', widthMm: 340, depthMm: 240 }],
    groups: [
      { id: 'long', letter: 'A', thread: 'M2', lengthMm: 8 },
      { id: 'mid', letter: 'B', thread: 'M2', lengthMm: 6 },
      { id: 'inner', letter: 'C', thread: 'M2', lengthMm: 6 },
      { id: 'short', letter: 'D', thread: 'M2', lengthMm: 4 },
    ],
    screws: places.map(([id, group, xMm, yMm]) => ({
      id,
      layer: 'base',
      group,
      xMm,
      yMm,
      out: id !== 'f2',
      onArrival: id === 'f2' ? 'missing' : 'there',
    })),
    connectors: [
      { id: 'battery', name: 'battery', release: 'slide-out', off: true },
      { id: 'touchpad', name: 'touchpad ribbon', release: 'flip-latch', off: true },
      { id: 'lead', name: 'aerial', release: 'press-on', lead: 'white to 1', off: true },
    ],
    steps: [
      { id: 'cover', name: 'Base cover', state: 'done', screws: places.map(([id]) => id) },
      { id: 'battery', name: 'Battery off', state: 'done', connectors: ['battery'] },
      { id: 'ribbon', name: 'Ribbons', state: 'skipped', connectors: ['touchpad'] },
      { id: 'card', name: 'Card', state: 'done', connectors: ['touchpad', 'lead'] },
    ],
  });
  change(made);
  return made;
}
const put = (l: OpenUpLog, id: string) => l.screws.find((s) => s.id === id)!;
const allBack = (l: OpenUpLog) => l.screws.forEach((s) => s.out && (s.back = 'own'));
const of = (l: OpenUpLog, group: string) => screwBalance(l).groups.find((g) => g.group === group)!;

test('all back: even, though one is still missing from before', () => {
  const l = log(allBack);
  expect(screwBalance(l).even).toBe(true);
  expect(of(l, 'short')).toMatchObject({
    holes: 4,
    taken: 3,
    back: 3,
    missingOnArrival: ['f2'],
    gaps: [],
  });
});

test('one short: which group and hole, apart from what was missing on arrival', () => {
  const l = log((x) => {
    allBack(x);
    delete put(x, 'r3').back;
  });
  const balance = screwBalance(l);
  expect(balance.even).toBe(false);
  expect(of(l, 'long')).toMatchObject({ taken: 4, back: 3, leftOver: ['r3'], gaps: ['r3'] });
  expect(balance.groups.filter((g) => g.gaps.length).map((g) => g.group)).toEqual(['long']);
  put(l, 'r3').back = 'lost';
  expect(of(l, 'long')).toMatchObject({ leftOver: [], lost: ['r3'], gaps: ['r3'] });
});

test('a screw in another hole: a gap at home, a stranger there; two in one hole is said', () => {
  const l = log((x) => {
    allBack(x);
    put(x, 'c1').back = 'f2';
  });
  expect(of(l, 'inner').gaps).toEqual(['c1']);
  expect(of(l, 'short').swapped).toEqual([{ hole: 'f2', from: 'c1' }]);
  put(l, 'c2').back = 'f2';
  expect(screwBalance(l).twice).toEqual(['f2']);
});

test('a lost rim screw is better replaced from further in; one on the bench goes to the rim first', () => {
  const inner = log((x) => {
    // the inner two are of the rim’s kind
    put(x, 'c1').group = put(x, 'c2').group = 'mid';
    allBack(x);
    put(x, 'm1').back = 'lost';
  });
  expect(screwBalance(inner).advice).toEqual([
    { gap: 'm1', takeFrom: expect.stringMatching(/^c/) },
  ]);
  put(inner, 'm1').back = undefined;
  expect(screwBalance(inner).advice).toEqual([]);
  // the other way round nothing is to be moved
  const rim = log((x) => {
    put(x, 'c1').group = put(x, 'c2').group = 'mid';
    allBack(x);
    put(x, 'c1').back = 'lost';
  });
  expect(screwBalance(rim).advice).toEqual([]);
});

test('whatever became of the screws: what was taken is back, left over or lost', () => {
  const fate = fc.constantFrom('own', 'lost', undefined, 'r1', 'f3', 'c2');
  fc.assert(
    fc.property(fc.array(fate, { minLength: 12, maxLength: 12 }), (fates) => {
      const l = log((x) => x.screws.forEach((s, i) => s.out && (s.back = fates[i])));
      const { groups, twice, even } = screwBalance(l);
      const sum = (f: (g: (typeof groups)[number]) => number) =>
        groups.reduce((n, g) => n + f(g), 0);
      expect(sum((g) => g.back) + sum((g) => g.leftOver.length) + sum((g) => g.lost.length)).toBe(
        sum((g) => g.taken),
      );
      expect(sum((g) => g.holes)).toBe(12);
      // as many gaps as screws that are gone, and one more for each that shares a hole or fills an old gap
      if (!twice.length) {
        const away = sum((g) => g.leftOver.length) + sum((g) => g.lost.length);
        expect(sum((g) => g.gaps.length)).toBe(away);
      }
      if (even) expect(sum((g) => g.gaps.length)).toBe(0);
    }),
    { numRuns: 300, seed: 5 },
  );
});

test('two lengths in a row are named; long behind and short in front alone are not', () => {
  expect(screwWarnings(log()).filter((w) => w.kind === 'two-lengths')).toEqual([]);
  const mixed = screwWarnings(log((x) => (put(x, 'r2').group = 'short')));
  expect(mixed).toContainEqual({
    kind: 'two-lengths',
    screws: ['r1', 'r2', 'r3', 'r4'],
    lengthsMm: [4, 8],
  });
});

test('a longer screw near the touchpad is named, one further off is not', () => {
  const withPad = (xMm: number) =>
    screwWarnings(
      log((x) => {
        put(x, 'f3').group = 'long';
        x.parts.push({
          id: 'touchpad',
          name: 'touchpad',
          layer: 'base',
          place: { xMm, yMm: 150, widthMm: 100, depthMm: 75 },
          onlyWith: [],
          consumables: [],
          upgrades: [],
        });
      }),
    ).filter((w) => w.kind === 'odd-near');
  expect(withPad(110)).toEqual([{ kind: 'odd-near', screw: 'f3', part: 'touchpad' }]);
  expect(withPad(20)).toEqual([]);
});

test('a side that does not match its mirror; a hole that was empty on arrival does', () => {
  const mirror = (l: OpenUpLog) =>
    screwWarnings(l).flatMap((w) => (w.kind === 'mirror' ? [[w.screw, w.xMm, w.yMm]] : []));
  expect(mirror(log())).toEqual([]);
  const hidden = log((x) => {
    x.screws = x.screws.filter((s) => s.id !== 'm2');
  });
  expect(mirror(hidden)).toEqual([['m1', 330, 120]]);
});

test('the way back: last step first, odd screws first, latches closed, then start, clock, settings', () => {
  const back = backTogether(log((x) => (put(x, 'r1').back = 'lost')));
  expect(back.map((b) => b.undoes)).toEqual(['card', 'battery', 'cover', null, null, null]);
  expect(back[0]!.connectors).toEqual([
    expect.objectContaining({ id: 'touchpad', closeLatch: true, lead: null }),
    expect.objectContaining({ id: 'lead', closeLatch: false, lead: 'white to 1' }),
  ]);
  const cover = back[2]!;
  expect(cover.screws.map((s) => [s.group, s.holes.length])).toEqual([
    ['mid', 2],
    ['inner', 2],
    ['long', 3],
    ['short', 3],
  ]);
  expect(cover.tightening).toMatchObject({ by: 'crosswise', rounds: 2, neighbours: 0 });
  expect(cover.tightening!.order).not.toContain('f2');
  expect(back[3]!.name).toMatch(/minutes/);
});

test('whatever is out comes back: of steps skipped or still planned, and of no step', () => {
  const out = log((x) => {
    x.steps[0]!.state = 'planned';
    x.steps[0]!.screws = ['r1', 'r2', 'r3'];
    // of no step: a screw of the cover and a plug of nobody knows where
    x.connectors.push({ id: 'fan', name: 'fan plug', off: true, on: false });
    x.connectors.push({ id: 'spare', name: 'spare', off: false, on: false });
  });
  const back = backTogether(out);
  const screws = back.flatMap((b) => b.screws.flatMap((g) => g.holes));
  const outside = out.screws.filter((s) => s.out).map((s) => s.id);
  expect([...screws].sort()).toEqual([...outside].sort());
  const plugs = back.flatMap((b) => b.connectors.map((c) => c.id));
  expect([...plugs].sort()).toEqual(['battery', 'fan', 'lead', 'touchpad']);
  expect(back.map((b) => b.undoes ?? b.loose ?? b.check)).toEqual(
    expect.arrayContaining(['cover', 'base', '']),
  );
  // a plug that somebody took off in a step that he then skipped
  const skipped = log((x) => {
    x.connectors.push({ id: 'jack', name: 'jack plug', off: true, on: false });
    x.connectors.push({ id: 'idle', name: 'never off', off: false, on: false });
    x.steps[2]!.connectors = ['jack', 'idle'];
  });
  const ribbon = backTogether(skipped).find((b) => b.undoes === 'ribbon')!;
  expect(ribbon.connectors.map((c) => c.id)).toEqual(['jack']);
  // a step that was skipped and took nothing off is left out
  expect(back.map((b) => b.undoes)).not.toContain('ribbon');
  // once it was put back it is known
  const loose = back.find((b) => b.loose === 'base')!;
  expect(loose.name).toBe('What belongs to no step, base cover');
  expect(endBack(out, loose).checked).toEqual([looseCheck('base')]);
});

test('the battery goes in last before the cover whatever the order of the log, unless something covers it', () => {
  const named = (x: OpenUpLog) =>
    backTogether(x)
      .filter((b) => b.undoes)
      .map((b) => b.undoes);
  const base = {
    done: (id: string, name: string, needs: string[] = []) => ({ id, name, state: 'done', needs }),
  };
  const { done } = base;
  const logOf = (...steps: object[]) =>
    openUpLog.parse({
      format: 'zugluft-openup',
      formatVersion: 1,
      steps: [...steps],
    });
  const plugs = done('plugs', 'Fan plugs out');
  const cover = done('cover', 'Base cover off');
  const out = done('out', 'Battery out');
  const plug = done('plug', 'Battery plug out');
  expect(named(logOf(cover, plug, out, plugs))).toEqual(['plugs', 'out', 'plug', 'cover']);
  // logged late, and even before the cover
  expect(named(logOf(cover, plugs, plug))).toEqual(['plugs', 'plug', 'cover']);
  expect(named(logOf(plug, cover, plugs))).toEqual(['plugs', 'plug', 'cover']);
  // a frame over it goes back after it, with what had to come off for the frame
  const frame = done('frame', 'Mid-frame off', ['leads']);
  const leads = done('leads', 'Antenna leads off');
  const under = done('plug', 'Battery plug out', ['frame']);
  expect(named(logOf(cover, leads, frame, under, plugs))).toEqual([
    'plugs',
    'plug',
    'frame',
    'leads',
    'cover',
  ]);
});

test('an odd screw near a part of kind battery is warned of, whatever it is called; a heat sink off centre is no hidden screw', () => {
  const near = log((x) => {
    put(x, 'f3').group = 'long';
    x.parts.push({
      id: 'p1',
      name: 'long grey thing',
      kind: 'battery',
      layer: 'base',
      place: { xMm: 110, yMm: 150, widthMm: 100, depthMm: 75 },
      onlyWith: [],
      consumables: [],
      upgrades: [],
    });
  });
  expect(screwWarnings(near)).toContainEqual({ kind: 'odd-near', screw: 'f3', part: 'p1' });
  near.parts[0]!.kind = 'storage';
  expect(screwWarnings(near).filter((w) => w.kind === 'odd-near')).toEqual([]);
  const sink = log((x) => {
    x.screws.push({ id: 'k1', layer: 'base', xMm: 90, yMm: 80, onArrival: 'there', out: true });
    x.steps.push({ ...x.steps[0]!, id: 'sink', name: 'Heat sink lifted', screws: ['k1'] });
  });
  expect(screwWarnings(sink).filter((w) => w.kind === 'mirror')).toEqual([]);
  sink.steps.at(-1)!.name = 'Next layer off';
  expect(screwWarnings(sink).filter((w) => w.kind === 'mirror')).toHaveLength(1);
});

test('a log that is none is refused at its place', () => {
  const wrong = openUpLog.safeParse({
    format: 'zugluft-openup',
    formatVersion: 1,
    screws: [{ id: 'a b', layer: 'base', xMm: -1, yMm: 9000 }],
  });
  expect(wrong.error!.issues.map((i) => i.path.join('.'))).toEqual([
    'screws.0.id',
    'screws.0.xMm',
    'screws.0.yMm',
  ]);
});
