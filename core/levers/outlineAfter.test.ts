import { estimate } from '../case/estimate';
import { openCase } from '../case/openCase';
import { estimateWithDraws } from '../uncertainty/estimateWithDraws';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { applyChanges } from './applyChanges';
import { outlineAfter } from './outlineAfter';
import { possibleLevers } from './possibleLevers';

const record = completeRecord(exampleRecord('two-fan-shared-pipes'));
const banded = estimateWithDraws(openCase({ record }), { caps: [36], draws: 60, seed: 2 }).estimate
  .caps[0]!;

test('after no change an outline is today’s at its medians, after a cooler room it lies outside it', () => {
  const same = outlineAfter(banded, estimate(openCase({ record }), { caps: [36] }).caps[0]!);
  expect(same.together.p50).toBeCloseTo(banded.together.p50!, 6);
  const cooler = applyChanges(record, [{ path: 'room.temperatureC', to: 15 }]).record;
  const after = outlineAfter(
    banded,
    estimate(openCase({ record: cooler }), { caps: [36] }).caps[0]!,
  );
  expect(after.together.p50!).toBeGreaterThan(same.together.p50!);
  const reach = (c: typeof same) => Math.max(...c.envelope.map((p) => p.cpuWatts));
  expect(reach(after)).toBeGreaterThan(reach(same));
  // by as much as the central ones differ
  const central = (r: typeof record) =>
    estimate(openCase({ record: r }), { caps: [36] }).caps[0]!.together.watts;
  expect(after.together.p50! / same.together.p50!).toBeCloseTo(
    central(cooler) / central(record),
    6,
  );
});

test('a lever whose change comes to no record keeps its place, without the change and with the reason', () => {
  const broken = structuredClone(record);
  broken.fans![0]!.impellerDiameterMm = 199;
  const all = possibleLevers(broken);
  const fan = all.find((l) => l.id === `fan.${broken.fans![0]!.id}`)!;
  expect(fan.possible).toBe(false);
  for (const l of all) expect(() => applyChanges(broken, l.change)).not.toThrow();
});
