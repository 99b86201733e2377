import Papa from 'papaparse';
import { comparisonCsv, comparisonDocument } from './comparisonDocument';

const machine = {
  name: '=1+1, "thin"',
  at: [
    { cap: 32, p05: 40.123456789, p50: 50, p95: 60 },
    { cap: 36, p05: 50, p50: 61.5, p95: 70 },
  ],
  wattsPerDb: 2.871234567,
  wattsPerKg: null,
  wattsPerMm: 3,
  finAreaCm2: 1234.5678901,
  sweptCm2: 50,
  pipeSectionMm2: 40,
};

test('as data it is what the command promises, to six digits', () => {
  const told = comparisonDocument({
    machines: [machine],
    better: [{ a: 'a', b: 'b', cap: 32, chance: 0.75 }],
  });
  expect(told).toEqual({
    format: 'zugluft-comparison',
    formatVersion: 1,
    machines: [
      {
        ...machine,
        at: [{ ...machine.at[0], p05: 40.1235 }, machine.at[1]],
        wattsPerDb: 2.87123,
        finAreaCm2: 1234.57,
      },
    ],
    better: [{ a: 'a', b: 'b', cap: 32, chance: 0.75 }],
  });
});

test('as a table it is a machine a row, read back by a parser as it was written', () => {
  const { data } = Papa.parse<Record<string, string>>(
    comparisonCsv({ machines: [machine], better: [] }),
    {
      header: true,
      skipEmptyLines: true,
    },
  );
  expect(data).toHaveLength(1);
  expect(data[0]).toMatchObject({
    name: '\'=1+1, "thin"',
    '32 p05': '40.1235',
    '36 p50': '61.5',
    wattsPerKg: '',
    finAreaCm2: '1234.57',
  });
  expect(comparisonCsv({ machines: [], better: [] })).toMatch(/^name,wattsPerDb/);
});
