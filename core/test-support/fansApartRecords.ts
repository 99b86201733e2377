import type { CaseRecord } from '../record/recordSchema';
import { exampleRecord } from './exampleRecord';

/** A machine with each of its fans controlled by itself. */
export function fansApart(record: CaseRecord): CaseRecord {
  const own = structuredClone(record);
  for (const fan of own.fans!) fan.control = 'own';
  return own;
}

/** The two-fan example whose second fan is small and blows through vents that are open by this share. */
export function closedVentRecord(openShare = 0.02): CaseRecord {
  const record = fansApart(exampleRecord('two-fan-shared-pipes'));
  Object.assign(record.fans![1]!, { impellerDiameterMm: 30, bladeHeightMm: 4 });
  for (const vent of [1, 3]) record.vents![vent]!.openShare = openShare;
  return record;
}

/** The two-fan example whose second fan starts near its full speed only: at most levels the other one blows alone. */
export function lateFanRecord(): CaseRecord {
  const record = fansApart(exampleRecord('two-fan-shared-pipes'));
  record.fans![1]!.minRpm = 4500;
  return record;
}
