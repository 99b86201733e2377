import { channelOf, splitName, unitMeant, unitOfChannel, type Channel } from './channelNames';
import { logTable, rowKinds } from './logTable';

const rows = (text: string) => text.split('\n').map((line) => line.split(';'));

test('a header in the first line, data below', () => {
  expect(logTable(rows('Time;CPU Power [W]\n0;45\n1;46'))).toEqual({
    header: 0,
    units: null,
  });
});

test('words before the header, units below it, a header again in the middle, averages at the end', () => {
  const lines = rows(
    'logger 2\nstarted;today\n\nTime;CPU;GPU\ns;W;W\n0;45;60\n1;N/A;61\nTime;CPU;GPU\ns;W;W\n2;44;62\n\nAverage;44,5;61',
  );
  const found = logTable(lines)!;
  expect(found).toEqual({ header: 3, units: 4 });
  const below = lines.slice(5).map(rowKinds(lines, found));
  expect(below).toEqual(['data', 'data', 'header', 'header', 'data', 'blank', 'footer']);
});

test('a file without figures holds no table', () => {
  expect(logTable(rows('a;b\nc;d\ne;f'))).toBeNull();
  expect(logTable([])).toBeNull();
});

test.each<[string, string, string]>([
  ['CPU Power [W]', 'CPU Power', 'W'],
  ['GPU temperature (°C)', 'GPU temperature', '°C'],
  ['Level [dB(A)]', 'Level', 'dB(A)'],
  ['Fan left, rpm', 'Fan left', 'rpm'],
  ['Core #0 (perf)', 'Core #0 (perf)', ''],
  ['Time/s', 'Time', 's'],
])('%p is %p in %p', (header, name, unit) => {
  expect(splitName(header)).toEqual({ name, unit });
});

test.each<[string, Channel | null]>([
  ['Time', 'timeS'],
  ['Elapsed [ms]', 'timeS'],
  ['CPU Package Power [W]', 'cpuPowerW'],
  ['GPU Power Draw [mW]', 'gpuPowerW'],
  ['CPU Temperature', 'cpuC'],
  ['GPU Hot Spot [°C]', 'gpuC'],
  ['Fan left [rpm]', 'fanRpm.left'],
  ['Fan speed', 'fanRpm.1'],
  ['GPU Clock [MHz]', 'gpuMHz'],
  ['LAeq [dB(A)]', 'levelDbA'],
  ['Wall power [W]', 'wallW'],
  ['Battery power [W]', 'batteryW'],
  ['Room temperature [°C]', 'roomC'],
  ['Frame rate', 'framesPerS'],
  // both named: a person has to say
  ['CPU+GPU power [W]', null],
  ['Voltage [V]', null],
])('%p is %p', (header, channel) => {
  expect(channelOf(splitName(header))).toBe(channel);
});

test('thousandths and thousands are turned into what a channel is kept in', () => {
  expect(unitMeant('mW')).toEqual({ unit: 'W', factor: 1e-3 });
  expect(unitMeant('GHz')).toEqual({ unit: 'MHz', factor: 1e3 });
  expect(unitMeant('V')).toBeNull();
  expect(unitOfChannel('exhaustC.fins-left')).toBe('°C');
  expect(unitOfChannel('fanRpm.1')).toBe('rpm');
  expect(unitOfChannel('other.x')).toBe('');
});
