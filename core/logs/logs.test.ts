import fc from 'fast-check';
import { changePoints } from './changePoints';
import { decodeText } from './decodeText';
import { decimalOf, logNumber } from './logNumber';
import { autocorrelation, energyMeanDb, seriesStats } from './seriesStats';

describe('text of a file', () => {
  const text = 'Zeit;GPU [°C]\r\n1;62,5\r\n';
  test.each<[string, () => Uint8Array]>([
    ['UTF-8', () => new TextEncoder().encode(text)],
    ['UTF-8 with a mark', () => new TextEncoder().encode(`\ufeff${text}`)],
    ['UTF-16 with a mark', () => new Uint8Array(Buffer.from(`\ufeff${text}`, 'utf16le'))],
    ['UTF-16 without', () => new Uint8Array(Buffer.from(text, 'utf16le'))],
    ['UTF-16 of the other order', () => new Uint8Array(Buffer.from(text, 'utf16le').swap16())],
    ['Windows-1252', () => new Uint8Array(Buffer.from(text, 'latin1'))],
  ])('%s', (_, bytes) => {
    expect(decodeText(bytes())).toBe(text);
  });
});

describe('numbers of a log', () => {
  test.each([
    ['12.5', '.', 12.5],
    ['-0,75', ',', -0.75],
    ['1,234.5', '.', 1234.5],
    ['1.234,5', ',', 1234.5],
    ['1 234', '.', 1234],
    ["12'345'678", '.', 12345678],
    ['.5', '.', 0.5],
    ['6e1', '.', 60],
    ['N/A', '.', null],
    [' - ', '.', null],
    ['', ',', null],
    ['1,23,4', '.', undefined],
    ['12,5', '.', undefined],
    ['fast', '.', undefined],
  ] as const)('%p by %p is %p', (cell, decimal, value) => {
    expect(logNumber(cell, decimal)).toBe(value);
  });

  test('the cells that allow one reading decide for the others', () => {
    expect(decimalOf(['1,234', '98,5'])).toEqual({ decimal: ',' });
    expect(decimalOf(['1,234', '98.5'])).toEqual({ decimal: '.' });
    expect(decimalOf(['40', 'N/A'])).toEqual({ decimal: '.' });
  });

  test('where none decides it asks, and what cannot be one column is said', () => {
    expect(decimalOf(['1,234', '2,345'])).toEqual({ either: '1,234' });
    expect(decimalOf(['12.5', '12,5'])).toEqual({ mixed: ['12.5', '12,5'] });
    expect(decimalOf(['1.234'], true)).toEqual({ decimal: '.' });
  });
});

describe('means', () => {
  // NIST statistical reference data set Michelso: 100 measurements of the speed of light, from memory
  const MICHELSON = (
    '850 740 900 1070 930 850 950 980 980 880 1000 980 930 650 760 810 1000 1000 960 960 ' +
    '960 940 960 940 880 800 850 880 900 840 830 790 810 880 880 830 800 790 760 800 ' +
    '880 880 880 860 720 720 620 860 970 950 880 910 850 870 840 840 850 840 840 840 ' +
    '890 810 810 820 800 770 760 740 750 760 910 920 890 860 880 720 840 850 850 780 ' +
    '890 840 780 810 760 810 790 810 820 850 870 870 810 740 810 940 950 800 810 870'
  )
    .split(' ')
    .map((x) => 299 + Number(x) / 1000);

  test('NIST Michelso: mean 299.8524, deviation 0.0790105, first autocorrelation 0.535199668', () => {
    const { mean, sd, count } = seriesStats(MICHELSON);
    expect(count).toBe(100);
    expect(mean).toBeCloseTo(299.8524, 10);
    expect(sd).toBeCloseTo(0.0790105478190518, 10);
    expect(autocorrelation(MICHELSON, 1)).toBeCloseTo(0.535199668621283, 9);
  });

  test('the error of a mean of samples that hang on each other, against many series of them', () => {
    // xᵢ = 0.8 xᵢ₋₁ + e: the mean of n is known to sd √((1 + ρ)/(1 − ρ)/n) = 3 sd / √n
    let seed = 7;
    const random = () => {
      seed = (seed * 16807) % 2147483647;
      return seed / 2147483647;
    };
    const normal = () => Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random());
    const series = () => {
      let x = normal() / 0.6;
      return Float64Array.from({ length: 400 }, () => (x = 0.8 * x + normal()));
    };
    const all = Array.from({ length: 300 }, () => seriesStats(series()));
    const spread = Math.sqrt(all.reduce((sum, s) => sum + s.mean ** 2, 0) / all.length);
    const told = all.reduce((sum, s) => sum + s.se, 0) / all.length;
    expect(Math.abs(told / spread - 1)).toBeLessThan(0.15);
    expect(told).toBeGreaterThan(2 * (all[0]!.sd / Math.sqrt(400)));
  });

  test('one sample has a mean and no deviation; none is refused', () => {
    expect(seriesStats([4])).toEqual({ count: 1, mean: 4, sd: 0, se: 0 });
    expect(() => seriesStats([])).toThrow(RangeError);
  });

  test('energy mean of 40 and 50 dB over equal times is 47.4 dB', () => {
    expect(energyMeanDb([40, 50])).toBeCloseTo(47.4, 1);
    expect(energyMeanDb([40, 50], [1, 0])).toBeCloseTo(40, 12);
    expect(energyMeanDb([4000, 4000])).toBeCloseTo(4000, 9);
  });
});

describe('change points', () => {
  /** The plain dynamic programme: every beginning is tried for every end. */
  const plain = (series: number[][], penalty: number, shortest: number) => {
    const n = series[0]!.length;
    const cost = (from: number, to: number) =>
      series.reduce((total, x) => {
        const part = x.slice(from, to);
        const mean = part.reduce((a, b) => a + b, 0) / part.length;
        return total + part.reduce((sum, v) => sum + (v - mean) ** 2, 0);
      }, 0);
    const best = new Array<number>(n + 1).fill(Infinity);
    best[0] = -penalty;
    for (let to = shortest; to <= n; to++) {
      for (let from = 0; from + shortest <= to; from++) {
        if (from > 0 && from < shortest) continue;
        best[to] = Math.min(best[to]!, best[from]! + cost(from, to) + penalty);
      }
    }
    return { total: best[n]!, cost };
  };

  test('as good as the plain dynamic programme on short series of any shape', () => {
    const values = fc.array(fc.integer({ min: -5, max: 5 }), { minLength: 6, maxLength: 70 });
    fc.assert(
      fc.property(
        values,
        fc.double({ min: 0.1, max: 30, noNaN: true }),
        fc.integer({ min: 1, max: 5 }),
        (x, penalty, shortest) => {
          const series = [x, x.map((v, i) => (i % 5) - v / 2)];
          const found = changePoints(series, penalty, shortest);
          const { total, cost } = plain(series, penalty, shortest);
          const ends = [...found, x.length];
          let sum = -penalty;
          ends.forEach((to, k) => {
            const from = k === 0 ? 0 : ends[k - 1]!;
            expect(to - from).toBeGreaterThanOrEqual(shortest);
            sum += cost(from, to) + penalty;
          });
          expect(sum).toBeCloseTo(total, 8);
        },
      ),
      { seed: 3, numRuns: 300 },
    );
  });

  test('two clear steps are found where they are, a flat series has none', () => {
    const noise = (i: number) => Math.sin(12.9898 * i) * 0.5;
    const steps = Array.from({ length: 300 }, (_, i) => (i < 100 ? 0 : i < 180 ? 8 : 3) + noise(i));
    expect(changePoints([steps], 2 * Math.log(300))).toEqual([100, 180]);
    const flat = Array.from({ length: 300 }, (_, i) => noise(i));
    expect(changePoints([flat], 2 * Math.log(300))).toEqual([]);
  });
});
