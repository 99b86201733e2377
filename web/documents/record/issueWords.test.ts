import { checkRecord } from '@zugluft/core/record/checkRecord';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { issueWords } from './issueWords';

const draft = {
  format: 'zugluft-record',
  formatVersion: 1,
  dies: [{ id: 'cpu', role: 'cpu', widthMm: 'wide', lengthMm: 12 }],
  plates: [{ id: 'plate', kind: 'copper-plate', dies: ['cpu', 'npu'] }],
  heatPipes: [{ id: 'pipe', diameterMm: 6, flattenedMm: 8, along: [{ part: 'plate' }] }],
  finStacks: [{ id: 'fins-left', widthMm: 70, heightMm: 8, finCount: 64 }],
  fans: [{ id: 'fan', impellerDiameterMm: 58 }],
};

test.each([
  ['finStacks.0.depthMm', 'needs a number', 'depth, fins-left: needs a number'],
  ['dies', 'needs at least one die', 'the machine needs at least one die'],
  ['dies.0.widthMm', '“wide” is not a number', 'width, cpu: “wide” is not a number'],
  [
    'plates.0.dies.1',
    'there is no die called “npu”',
    'dies under it, plate: there is no die called “npu”',
  ],
  [
    'heatPipes.0.flattenedMm',
    'pressed to 8 mm, thicker than its diameter of 6 mm',
    'flattened thickness, pipe: pressed to 8 mm, thicker than its diameter of 6 mm',
  ],
  [
    'fans.0',
    'the fan “fan” blows through no fin stack',
    'the fan “fan” blows through no fin stack',
  ],
  ['shell.massKg', 'must be at most 15 kg', 'mass: must be at most 15 kg'],
])('%s: %s', (path, message, words) => expect(issueWords(draft, { path, message })).toBe(words));

test('nothing that the check or the schema says leaves a bare path or an inner name', () => {
  const checked = { ...draft, dies: [{ id: 'cpu', role: 'cpu' }] };
  const issues = [...checkRecord(checked as never), ...parseRecord(draft).issues];
  expect(issues.length).toBeGreaterThan(6);
  for (const issue of issues) {
    const words = issueWords(checked, issue);
    expect(words).not.toMatch(/[a-z](Mm|WmK|DbA|Rpm)\b|\b(finStacks|heatPipes)\b|\w\.\d+\.\w/);
  }
});
