import {
  commandEntries,
  compareEntries,
  comparedWith,
  elsewhereWords,
  machineEntries,
  methodEntries,
  partEntries,
} from './paletteEntries';

const ID = '1d3b';

test('a command is given where it stands, and led to where it is of another step', () => {
  expect(commandEntries(['undo'], ['undo'], ID)).toEqual([
    expect.objectContaining({ command: 'undo' }),
  ]);
  expect(commandEntries(['undo'], [], undefined)).toEqual([]);
  const vent = commandEntries(['vent'], [], ID).find((e) => e.command === 'add-vent')!;
  expect(vent.to).toBe(`/machines/${ID}/outside`);
  // every word must begin a word of it
  expect(commandEntries(['undo', 'xylophone'], ['undo'], ID)).toEqual([]);
  expect(commandEntries(['ndo'], ['undo'], ID)).toEqual([]);
});

test('“compare with” names other machines beside the open one', () => {
  expect(comparedWith(['compare', 'with', 'quill'], ID)).toEqual(['quill']);
  expect(comparedWith(['comp', 'quill'], ID)).toEqual(['quill']);
  expect(comparedWith(['compare'], ID)).toEqual([]);
  expect(comparedWith(['com', 'quill'], ID)).toBeNull();
  expect(comparedWith(['compare', 'quill'], undefined)).toBeNull();
  const machine = (id: string) => ({ id, maker: 'Velmara', model: id, variant: '' }) as never;
  expect(compareEntries([machine(ID), machine('b')], ID)).toEqual([
    { name: 'Compare with Velmara b', hint: 'side by side', to: `/compare/${ID}/b` },
  ]);
});

test('a command that can be given only elsewhere is not answered with silence', () => {
  expect(elsewhereWords(['undo'])).toMatch(/^“.*undo.*: in the file of a machine/i);
  expect(elsewhereWords(['xylophone'])).toBeNull();
  expect(elsewhereWords([])).toBeNull();
});

test('parts, machines, equations and defaults are found by the beginnings of their words', () => {
  const record = {
    fans: [{ id: 'fan-left' }, { id: 'fan-right' }],
    dies: [{ id: 'cpu' }],
    vents: 3,
  };
  expect(partEntries(record, ID, ['left'])).toEqual([
    { name: 'fan-left', hint: 'part', to: `/machines/${ID}/cooling?part=fans.0` },
  ]);
  expect(partEntries(record, ID, ['fan'])).toHaveLength(2);
  expect(partEntries(record, ID, [])).toEqual([]);
  expect(partEntries(null, ID, ['fan'])).toEqual([]);
  expect(machineEntries([{ id: ID, maker: '', model: '', variant: '' } as never])).toEqual([
    { name: 'Unnamed machine', hint: 'machine', to: `/machines/${ID}/cooling` },
  ]);
  const method = [{ equations: [{ title: 'Fin efficiency' }, { title: 'Free shear' }] }];
  const defaults = { 'fans.psi': { about: 'installed pressure coefficient' } };
  expect(methodEntries(method, defaults, ['effi'])).toEqual([
    { name: 'Fin efficiency', hint: 'equation', to: '/method?find=Fin%20efficiency' },
  ]);
  expect(methodEntries(method, defaults, ['press']).map((e) => e.to)).toEqual([
    '/method?find=fans.psi',
  ]);
  expect(methodEntries(method, defaults, [])).toEqual([]);
});
