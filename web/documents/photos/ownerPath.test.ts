import { ownerOf, ownerPath, owners, ownerWords } from './ownerPath';

const draft = {
  fans: [{ id: 'fan-left' }, { id: 'fan-right' }],
  finStacks: [{ id: 'fins' }],
  shell: {},
};

test.each([
  [['fans', 1, 'maxRpm'], 'fans.fan-right.maxRpm'],
  [['finStacks', 0], 'finStacks.fins'],
  [['shell', 'widthMm'], 'shell.widthMm'],
  [['noise', 'sweep', 2, 'dbA'], 'noise.sweep.2.dbA'],
  [[], ''],
])('%j belongs to “%s”', (path, owner) => expect(ownerPath(draft, path)).toBe(owner));

test('what a path means, also when its part was renamed since', () => {
  expect(ownerWords(draft, '')).toBe('the machine');
  expect(ownerWords(draft, 'fans.fan-left')).toBe('fan-left');
  expect(ownerWords(draft, 'fans.fan-left.maxRpm')).toBe('fan-left, maximum speed');
  expect(ownerWords(draft, 'fans.old-name')).toBe('old-name (no longer in the record)');
  expect(ownerWords(draft, 'fans.fan-left.impellerDiameterMm')).toBe('fan-left, impeller');
  expect(ownerOf(draft, 'shell.widthMm')).toEqual({
    part: 'shell',
    figure: 'shell width',
    gone: false,
  });
  expect(owners(draft)).toEqual(['', 'finStacks.fins', 'fans.fan-left', 'fans.fan-right']);
});

test('photos of an opening’s step belong to the opening', () => {
  expect(ownerWords({}, 'log.steps.step3')).toBe('the opening, step step3');
});
