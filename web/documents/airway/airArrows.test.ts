import { placeParts } from '@zugluft/core/airway/placeParts';
import { exampleRecord } from '@zugluft/core/test-support/exampleRecord';
import { airArrows, arrowsFor } from './airArrows';

const record = exampleRecord('two-fan-shared-pipes');
const byId = new Map(placeParts(record).parts.map((p) => [p.id, p]));
const arrows = (left: number | undefined) =>
  airArrows(record, byId, (fan) => (fan === 'fan-left' ? left : 0.5));
const count = (all: { key: string }[], of: string) => all.filter((a) => a.key.includes(of)).length;

test('the number of arrows follows the flow', () => {
  expect([0, 0.1, 0.5, 1, 1.9, 40, undefined].map(arrowsFor)).toEqual([1, 1, 2, 4, 8, 10, 1]);
  const slow = arrows(0.5);
  const fast = arrows(1.5);
  const out = record.vents!.find(
    (v) => v.flow === 'exhaust' && v.finStacks?.includes('fins-left'),
  )!;
  expect(count(slow, `>${out.id}`)).toBe(2);
  expect(count(fast, `>${out.id}`)).toBe(6);
  // the other side stays as it is
  expect(fast.filter((a) => !a.key.includes('left'))).toEqual(
    slow.filter((a) => !a.key.includes('left')),
  );
});

test('air leaves by the rear, away from the machine, and enters fans towards their middle', () => {
  const all = arrows(1);
  const out = record.vents!.find((v) => v.flow === 'exhaust' && v.side === 'rear')!;
  for (const a of all.filter((x) => x.key.includes(`>${out.id}`))) {
    expect(a.y2).toBeLessThan(a.y1);
    expect(a.y2).toBeLessThan(0);
  }
  const fan = byId.get('fan-left')!;
  const entering = all.filter((a) => a.key.includes('>fan-left'));
  expect(entering.length).toBeGreaterThan(0);
  const far = (x: number, y: number) => Math.hypot(x - fan.xMm, y - fan.yMm);
  for (const a of entering) expect(far(a.x2, a.y2)).toBeLessThan(far(a.x1, a.y1));
});

test('a fan over two stacks shares its air between them', () => {
  const [one, two] = record.finStacks!;
  const shared = { ...record, finStacks: [one!, { ...two!, fans: ['fan-left'] }] };
  const all = airArrows(shared, byId, () => 2);
  const out = record.vents!.find((v) => v.flow === 'exhaust' && v.finStacks?.includes(one!.id))!;
  expect(count(all, `>${out.id}`)).toBe(arrowsFor(1));
  expect(count(all, '>fan-left')).toBe(arrowsFor(2));
});

test('without a flow one arrow shows the way; what is not on the map has none', () => {
  expect(count(arrows(undefined), '>fan-left')).toBe(1);
  expect(airArrows(record, new Map(), () => 1)).toEqual([]);
});
