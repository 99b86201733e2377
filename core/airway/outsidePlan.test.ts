import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { randomRecord } from '../test-support/randomRecord';
import type { CaseRecord } from '../record/recordSchema';
import { faceAt, FACES, keptPlace, likelyVent, outsidePlan } from './outsidePlan';

const example = (): CaseRecord =>
  JSON.parse(readFileSync(join(__dirname, '../../examples/two-fan-shared-pipes.json'), 'utf8'));

test('from below the user’s left lies on the right; the rear is above', () => {
  const plan = outsidePlan(example());
  const left = plan.vents.find((v) => v.id.includes('left') && v.face === 'base')!;
  const right = plan.vents.find((v) => v.id.includes('right') && v.face === 'base')!;
  expect(left.x).toBeGreaterThan(right.x);
  const { base, rear } = plan.faces;
  expect(rear.y + rear.height).toBeLessThan(base.y);
  expect(plan.faces.left.x).toBeGreaterThan(base.x + base.width);
});

test('a vent has its recorded size and lies within its face, in every record', () => {
  fc.assert(
    fc.property(randomRecord, (record) => {
      const plan = outsidePlan(record);
      const all = plan.vents.length + plan.onDeck.length;
      expect(all).toBe(record.vents?.length ?? 0);
      for (const v of plan.vents) {
        const f = plan.faces[v.face];
        expect(v.x).toBeGreaterThanOrEqual(f.x - 1e-9);
        expect(v.y).toBeGreaterThanOrEqual(f.y - 1e-9);
        expect(v.x + v.width).toBeLessThanOrEqual(f.x + f.width + 1e-9);
        expect(v.y + v.height).toBeLessThanOrEqual(f.y + f.height + 1e-9);
        expect(faceAt(plan, v.x + v.width / 2, v.y + v.height / 2)).toBe(v.face);
      }
    }),
    { numRuns: 60 },
  );
});

test('where a vent is put is where it is drawn again', () => {
  const record = example();
  for (const face of FACES) {
    const plan = outsidePlan(record);
    const r = plan.faces[face];
    const [x, y] = [r.x + 0.5 * r.width, r.y + 0.4 * r.height];
    const place = keptPlace(plan, face, x, y);
    const put: CaseRecord = {
      ...record,
      vents: [{ id: 'new', flow: 'passive', side: face, widthMm: 30, lengthMm: 5 }],
      airway: { places: { new: place } },
    };
    const drawn = outsidePlan(put).vents[0]!;
    expect(drawn.face).toBe(face);
    if (face !== 'left' && face !== 'right') {
      expect(Math.abs(drawn.x + drawn.width / 2 - x)).toBeLessThanOrEqual(0.51);
    }
    if (face !== 'rear') expect(Math.abs(drawn.y + drawn.height / 2 - y)).toBeLessThanOrEqual(0.51);
  }
});

test('a vent on the base feeds the fan above it, one at the rear empties the stack behind it', () => {
  const record = example();
  const plan = outsidePlan(record);
  const at = (id: string) => plan.vents.find((v) => v.id === id)!;
  for (const vent of record.vents!) {
    const v = at(vent.id);
    const place = keptPlace(plan, v.face, v.x + v.width / 2, v.y + v.height / 2);
    const likely = likelyVent(record, v.face, place);
    expect(likely.flow).toBe(vent.flow);
    expect(likely.fans ?? likely.finStacks).toEqual(vent.fans ?? vent.finStacks);
  }
  expect(
    likelyVent({ format: 'zugluft-record', formatVersion: 1 }, 'rear', { xMm: 1, yMm: 0 }),
  ).toEqual({
    side: 'rear',
    flow: 'exhaust',
    finStacks: [],
  });
});

test('a vent on the deck is named, not drawn', () => {
  const record = example();
  record.vents![0]!.side = 'deck';
  expect(outsidePlan(record).onDeck).toEqual([{ id: record.vents![0]!.id, index: 0 }]);
});
