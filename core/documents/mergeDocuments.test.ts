import fc from 'fast-check';
import { diffRecords, isLeaf, sameValue } from '../family/diffRecords';
import { exampleRecord } from '../test-support/exampleRecord';
import { mergeDocuments } from './mergeDocuments';
import { applyPatch, patchOf } from './patch';

const two = exampleRecord('two-fan-shared-pipes');
type Two = typeof two;
const changed = (change: (r: Two) => void): Two => {
  const copy = structuredClone(two);
  change(copy);
  return copy;
};

describe('merge', () => {
  test('what does not touch is joined: figures, parts added, parts removed, order', () => {
    const mine = changed((r) => {
      r.shell!.massKg = 2.4;
      r.fans!.push({ id: 'fan-mine' });
      r.pads = [{ id: 'pad-9', from: 'storage' }];
    });
    const theirs = changed((r) => {
      r.finStacks![0]!.depthMm = { value: 26, origin: 'label' };
      r.fans!.push({ id: 'fan-theirs' });
      r.vents = r.vents!.slice(1);
      r.finStacks!.reverse();
    });
    const { value, conflicts } = mergeDocuments(two, mine, theirs);
    expect(conflicts).toEqual([]);
    expect(value.shell!.massKg).toBe(2.4);
    expect(value.pads).toEqual(mine.pads);
    expect(value.vents).toEqual(theirs.vents);
    expect(value.finStacks!.map((s) => s.id)).toEqual(theirs.finStacks!.map((s) => s.id));
    expect(value.finStacks!.find((s) => s.id === 'fins-left')!.depthMm).toEqual({
      value: 26,
      origin: 'label',
    });
    expect(value.fans!.map((f) => f.id).sort()).toEqual(
      ['fan-left', 'fan-mine', 'fan-right', 'fan-theirs'].sort(),
    );
  });

  test('what both changed otherwise is asked figure by figure; a choice holds for its figure alone', () => {
    const mine = changed((r) => {
      r.shell!.massKg = 2.4;
      r.finStacks![1]!.finCount = 70;
    });
    const theirs = changed((r) => {
      r.shell!.massKg = 2.6;
      r.finStacks![1]!.finCount = 72;
    });
    const asked = mergeDocuments(two, mine, theirs);
    expect(asked.conflicts).toEqual([
      { path: 'shell.massKg', base: two.shell!.massKg, mine: 2.4, theirs: 2.6 },
      { path: 'finStacks.fins-right.finCount', base: 64, mine: 70, theirs: 72 },
    ]);
    // until then what stands here stays
    expect(sameValue(asked.value, mine)).toBe(true);
    const half = mergeDocuments(two, mine, theirs, new Map([['shell.massKg', 'theirs']]));
    expect(half.conflicts.map((c) => c.path)).toEqual(['finStacks.fins-right.finCount']);
    expect(half.value.shell!.massKg).toBe(2.6);
  });

  test('a part that one side removed and the other changed is asked about as a whole', () => {
    const mine = changed((r) => (r.fans![0]!.maxRpm = 4800));
    const theirs = changed((r) => r.fans!.shift());
    const { conflicts, value } = mergeDocuments(two, mine, theirs);
    expect(conflicts).toEqual([{ path: 'fans.fan-left', base: two.fans![0], mine: mine.fans![0] }]);
    expect(value.fans![0]!.maxRpm).toBe(4800);
    const gone = mergeDocuments(two, mine, theirs, new Map([['fans.fan-left', 'theirs']]));
    expect(gone.value.fans!.map((f) => f.id)).toEqual(['fan-right']);
  });

  test('the same change on both sides, and a plain number for a figure, are no conflict', () => {
    const mine = changed((r) => (r.shell!.massKg = { value: 2.4 }));
    const theirs = changed((r) => (r.shell!.massKg = 2.4));
    expect(mergeDocuments(two, mine, theirs).conflicts).toEqual([]);
  });

  test('lists of plain values and of parts without ids are one figure each', () => {
    const at = (r: Two) => r.heatPipes![0]!;
    const mine = changed((r) => (at(r).along = at(r).along!.slice(1)));
    const theirs = changed((r) => (at(r).along = at(r).along!.slice(0, 2)));
    const { conflicts } = mergeDocuments(two, mine, theirs);
    expect(conflicts.map((c) => c.path)).toEqual(['heatPipes.pipe.along']);
  });
});

/** Small documents with parts, so that random changes often touch. */
const leaf = fc.oneof(fc.integer({ min: 0, max: 3 }), fc.constantFrom('a', 'b'));
const part = fc.record(
  { id: fc.constantFrom('p', 'q', 'r', 's'), x: leaf, y: leaf },
  { requiredKeys: ['id'] },
);
const doc = fc.record(
  {
    note: leaf,
    inner: fc.record({ u: leaf, v: leaf }, { requiredKeys: [] }),
    parts: fc.uniqueArray(part, { selector: (p) => p.id, maxLength: 4 }),
    list: fc.array(leaf, { maxLength: 3 }),
  },
  { requiredKeys: [] },
);

describe('laws', () => {
  test('one side alone: its change; both alike: that; sides swapped ask the same figures', () => {
    fc.assert(
      fc.property(doc, doc, doc, (base, mine, theirs) => {
        expect(sameValue(mergeDocuments(base, mine, base).value, mine)).toBe(true);
        expect(sameValue(mergeDocuments(base, base, theirs).value, theirs)).toBe(true);
        expect(mergeDocuments(base, mine, mine).conflicts).toEqual([]);
        const asked = (a: typeof base, b: typeof base) =>
          mergeDocuments(base, a, b)
            .conflicts.map((c) => c.path)
            .sort();
        expect(asked(mine, theirs)).toEqual(asked(theirs, mine));
      }),
      { numRuns: 400 },
    );
  });

  test('nothing that a side changed is lost unseen: it stands in the answer or is asked about', () => {
    fc.assert(
      fc.property(doc, doc, doc, (base, mine, theirs) => {
        const { value, conflicts } = mergeDocuments(base, mine, theirs);
        const within = (path: string) =>
          conflicts.some(
            (c) =>
              c.path === path || path.startsWith(`${c.path}.`) || c.path.startsWith(`${path}.`),
          );
        const read = (x: unknown, path: string) =>
          new Map(diffRecords({}, x).map((d) => [d.path, d.after])).get(path);
        for (const side of [mine, theirs]) {
          for (const { path, after } of diffRecords(base, side)) {
            if (within(path) || path === 'parts' || after === undefined || !isLeaf(after)) continue;
            expect(sameValue(read(value, path) ?? after, after)).toBe(true);
          }
        }
      }),
      { numRuns: 400 },
    );
  });

  test('choosing one side for all that is asked leaves nothing open', () => {
    fc.assert(
      fc.property(
        doc,
        doc,
        doc,
        fc.constantFrom('mine' as const, 'theirs' as const),
        (b, m, t, side) => {
          const asked = mergeDocuments(b, m, t).conflicts;
          const chosen = new Map(asked.map((c) => [c.path, side]));
          expect(mergeDocuments(b, m, t, chosen).conflicts).toEqual([]);
        },
      ),
      { numRuns: 200 },
    );
  });

  test('a patch leads there and back', () => {
    fc.assert(
      fc.property(doc, doc, (a, b) => {
        const patch = patchOf(a, b);
        expect(applyPatch(a, patch, 'forward')).toEqual(b);
        expect(applyPatch(b, patch, 'back')).toEqual(a);
        // as it comes back from a store
        expect(applyPatch(b, JSON.parse(JSON.stringify(patch)), 'back')).toEqual(a);
      }),
      { numRuns: 400 },
    );
  });
});
