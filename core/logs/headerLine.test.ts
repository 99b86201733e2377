import { headerLine } from './headerLine';

const of = (text: string) => headerLine(new TextEncoder().encode(text));
const ROWS = '\n1,50,60\n2,51,61\n';

test('the header is the same whatever stands above and below it', () => {
  const own = of(`Time,CPU [W],CPU [°C]${ROWS}`);
  expect(own).toBe('Time\tCPU [W]\tCPU [°C]');
  expect(of(`\ufeffLog of a bench\n\nTime, CPU [W] ,CPU [°C]\n7,10,20\n8,11,21\n`)).toBe(own);
  expect(of(`Time;CPU [W];CPU [°C]\r\n1;50,5;60\r\n2;51,5;61\r\n`)).toBe(own);
});

test('units below the names belong to it, and other names are another header', () => {
  expect(of('Time,CPU,CPU2\ns,W,W\n1,50,60\n2,51,61\n')).toBe('Time\tCPU\tCPU2\ns\tW\tW');
  expect(of(`Time,GPU [W],CPU [°C]${ROWS}`)).not.toBe(of(`Time,CPU [W],CPU [°C]${ROWS}`));
});

test('UTF-16 is read, and what is no table has none', () => {
  const text = `Time\tCPU [W]\tCPU [°C]\n1\t50\t60\n2\t51\t61\n`;
  const wide = new Uint8Array(Buffer.from(`\ufeff${text}`, 'utf16le'));
  expect(headerLine(wide)).toBe('Time\tCPU [W]\tCPU [°C]');
  expect(of('Dear colleague,\nhere is the file.')).toBeNull();
  expect(headerLine(new Uint8Array(0))).toBeNull();
});
