import Papa from 'papaparse';
import {
  rankedAt,
  siteComparison,
  siteData,
  siteIndex,
  uniqueSlugs,
  type SiteMachine,
} from './librarySite';

const band = (p50: number) => ({ p05: p50 - 10, p50, p95: p50 + 10 });
const machine = (
  name: string,
  p50: number | null,
  over: Partial<SiteMachine> = {},
): SiteMachine => ({
  name,
  slug: name.toLowerCase(),
  at: [
    { cap: 36, watts: p50 === null ? null : band(p50) },
    { cap: 'full', watts: band(150) },
  ],
  isCalibrated: false,
  fans: 2,
  pipes: 1,
  chamber: false,
  finAreaCm2: 500,
  thicknessMm: 20,
  massKg: 2,
  ...over,
});
const OPTIONS = { cap: 36, units: 'metric', day: '2026-11-28', program: '1.2.3' } as const;
const text = (x: object) => JSON.stringify(x);

test('machines come from the most watts down, those without any last', () => {
  const all = [machine('C', null), machine('A', 60), machine('B', 90), machine('Aa', 60)];
  expect(rankedAt(all, 36).map((m) => m.name)).toEqual(['B', 'A', 'Aa', 'C']);
  expect(rankedAt(all, 'full').map((m) => m.name)).toEqual(['A', 'Aa', 'B', 'C']);
});

test('the first page leads to each machine, and says what is not known', () => {
  const { tree, charts } = siteIndex(
    [
      machine('A', 60, { isCalibrated: true, pipes: 2 }),
      machine('B', null, { chamber: true, massKg: null, thicknessMm: null }),
    ],
    OPTIONS,
  );
  const all = text(tree);
  expect(all).toContain('"machines/a/index.html"');
  expect(all).toContain('60 W, 50 to 70');
  expect(all).toContain('2 fans, 2 heat pipes, narrowed by runs');
  expect(all).toContain('2 fans, vapor chamber');
  expect(all).toContain('20 mm');
  expect(all).toContain('no safety certificate');
  expect(Object.keys(charts)).toHaveLength(1);
  // what has no watts is not drawn
  expect(charts['chart:ranking']!.alt).not.toContain('B ');
});

test('with no watts at all nothing is drawn, with very many only the first', () => {
  expect(siteIndex([machine('A', null)], OPTIONS).charts).toEqual({});
  expect(text(siteIndex([], OPTIONS).tree)).toContain('0 machines');
  const many = Array.from({ length: 31 }, (_, i) => machine(`M${i}`, 50 + i));
  expect(text(siteIndex(many, OPTIONS).tree)).toContain('The drawing shows the first 30.');
  expect(text(siteIndex(many.slice(1), OPTIONS).tree)).not.toContain('The drawing shows');
});

test('all levels side by side have a column each', () => {
  const { tree } = siteComparison([machine('A', null)], [36, 'full'], OPTIONS);
  const all = text(tree);
  for (const words of ['36 dB(A)', 'full speed', '150 W, 140 to 160', '–', '"index.html"']) {
    expect(all).toContain(words);
  }
});

test('the open data is the same figures; a name is no formula', () => {
  const { json, csv } = siteData([machine('=1+1', 60.1234567)], [36, 'full'], OPTIONS);
  const [m] = (JSON.parse(json) as { machines: { name: string; at: object[] }[] }).machines;
  expect(m).toMatchObject({ name: '=1+1', heatPipes: 1, vaporChamber: false });
  expect(m!.at).toEqual([
    { cap: 36, p05: 50.1235, p50: 60.1235, p95: 70.1235 },
    { cap: 'full', p05: 140, p50: 150, p95: 160 },
  ]);
  const { data, errors } = Papa.parse<Record<string, string>>(csv.trimEnd(), { header: true });
  expect(errors).toEqual([]);
  expect(data[0]).toMatchObject({ name: "'=1+1", wattsAt36p50: '60.1235', wattsAtfullp95: '160' });
});

test('folders of one name are numbered', () => {
  expect(uniqueSlugs(['a', 'b', 'a', 'a-2', 'a'])).toEqual(['a', 'b', 'a-2', 'a-2-2', 'a-3']);
});
