import { exampleRecord } from '../test-support/exampleRecord';
import { estimate } from '../case/estimate';
import { openCase } from '../case/openCase';
import { benchSheet } from './benchSheet';
import { setAt } from './plainJson';

const record = exampleRecord('two-fan-shared-pipes');
const paths = (r: object, assumed?: ReadonlySet<string>) =>
  benchSheet(r, assumed).flatMap((s) => s.rows.map((x) => x.path));

test('what is open stands there in the order of opening, what was measured does not', () => {
  const open = setAt(
    setAt(record, ['fans', 0, 'impellerDiameterMm'], undefined),
    ['dies', 0, 'widthMm'],
    undefined,
  );
  const sheet = benchSheet(open);
  const titles = sheet.map((s) => s.title);
  expect(titles.indexOf('Fans')).toBeLessThan(titles.indexOf('Under the heat sink: dies'));
  const fan = sheet.find((s) => s.title === 'Fans')!.rows[0]!;
  expect(fan).toMatchObject({
    path: `fans.${record.fans![0]!.id}.impellerDiameterMm`,
    needed: true,
  });
  expect(fan.how.where).toContain('blade tip');
  expect(paths(record)).not.toContain(fan.path);
  // guessed or copied it is open still, and no longer needed
  const guessed = setAt(record, ['fans', 0, 'impellerDiameterMm'], {
    value: 58,
    origin: 'assumed',
  });
  expect(benchSheet(guessed).flatMap((s) => s.rows)).toContainEqual(
    expect.objectContaining({ path: fan.path, needed: false }),
  );
});

test('figures that the estimate assumed are on it', () => {
  const { assumed } = estimate(openCase({ record }), { caps: ['full'] });
  const known = new Set(assumed.map((a) => a.path));
  const all = paths(record, known);
  const figures = [...known].filter((p) => all.includes(p));
  expect(figures.length).toBeGreaterThan(3);
  expect(paths(record).length).toBeLessThan(all.length);
  expect(new Set(all).size).toBe(all.length);
});

test('an empty record has a sheet of what stands once', () => {
  expect(benchSheet({}).map((s) => s.title)).toContain('Outside');
});
