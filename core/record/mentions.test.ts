import { withMentions } from './mentions';
import type { PartListName } from './partLists';

/** A record in which every part is mentioned wherever one can be. */
const record = () => ({
  dies: [{ id: 'die-1' }],
  plates: [
    { id: 'plate', dies: ['die-1', 'other'], places: [{ die: 'die-1', xMm: 1 }, { die: 'other' }] },
  ],
  heatPipes: [{ id: 'pipe', along: [{ part: 'stack', fromMm: 0 }, { part: 'plate' }] }],
  finStacks: [{ id: 'stack', fans: ['fan'], plates: ['plate'], pipesFromFan: ['pipe', 'pipe-2'] }],
  fans: [{ id: 'fan' }],
  vents: [{ id: 'vent', fans: ['fan'], finStacks: ['stack'] }],
  strips: [
    { id: 's1', at: 'stack' },
    { id: 's2', at: 'vent' },
    { id: 's3', at: 'fan' },
    { id: 's4', at: 'plate' },
    { id: 's5', at: 'pipe' },
  ],
  pads: [{ id: 'p', from: 'plate', to: 'stack' }],
  noise: { sweep: [{ rpm: { fan: 3000, 'fan-2': 2000 }, dbA: 30 }] },
  airway: { places: { 'die-1': { xMm: 1 }, plate: {}, stack: {}, fan: {}, vent: {} } },
});
const PARTS: [PartListName, string][] = [
  ['dies', 'die-1'],
  ['plates', 'plate'],
  ['heatPipes', 'pipe'],
  ['finStacks', 'stack'],
  ['fans', 'fan'],
  ['vents', 'vent'],
];

test.each(PARTS)('a renamed part of %s is renamed wherever it is mentioned', (list, name) => {
  const before = record();
  const own = { ...before, [list]: [{ ...before[list as 'fans'][0], id: 'new-name' }] };
  const after = JSON.stringify(withMentions(own, list, name, 'new-name'));
  expect(after).not.toMatch(new RegExp(`"${name}"`));
  expect(after.match(/"new-name"/g)!.length).toBe(
    JSON.stringify(before).match(new RegExp(`"${name}"`, 'g'))!.length,
  );
});

test.each(PARTS)(
  'a removed part of %s is mentioned nowhere, and nothing else goes',
  (list, name) => {
    const own = { ...record(), [list]: [] };
    const after = withMentions(own, list, name, null);
    expect(JSON.stringify(after)).not.toMatch(new RegExp(`"${name}"`));
    // the strip stays, without its place
    expect(after.strips).toHaveLength(5);
    expect(after.pads).toHaveLength(1);
    if (list !== 'plates') expect(after.plates[0]!.dies).toContain('other');
  },
);

test('figures of mentions stay, and what mentions nothing is the same object', () => {
  const before = record();
  const after = withMentions(before, 'dies', 'die-1', 'cpu');
  expect(after.plates[0]!.places[0]).toEqual({ die: 'cpu', xMm: 1 });
  expect(after.vents).toBe(before.vents);
  expect(withMentions({ fans: [] }, 'fans', 'a', 'b')).toEqual({ fans: [] });
});
