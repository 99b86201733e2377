import type { CaseRecord } from '../record/recordSchema';
import { exampleRecord } from './exampleRecord';

/** A record with both dies on one plate that a pipe crosses lengthwise. */
export function sharedPlate(change: (r: CaseRecord) => void = () => undefined): CaseRecord {
  const record = exampleRecord('two-fan-shared-pipes');
  const [cpu, gpu] = record.dies!;
  Object.assign(cpu!, { widthMm: 12, lengthMm: 12 });
  Object.assign(gpu!, { widthMm: 17, lengthMm: 17 });
  record.plates = [
    {
      id: 'plate',
      kind: 'copper-plate',
      dies: ['cpu', 'gpu'],
      widthMm: 90,
      lengthMm: 40,
      thicknessMm: 1.5,
    } as NonNullable<CaseRecord['plates']>[number],
  ];
  record.heatPipes!.forEach((p) => {
    const ends = p.along!.filter((a) => a.part.startsWith('fins'));
    p.along = [ends[0]!, { part: 'plate', fromMm: 100, toMm: 190 }, ends[1]!];
  });
  record.pads = [];
  change(record);
  return record;
}
