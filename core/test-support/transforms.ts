import type { CaseRecord } from '../record/recordSchema';
import { completeRecord } from './exampleRecord';

const SWAP: Record<string, string> = { left: 'right', right: 'left' };

/** The record seen in a mirror: left and right change places, pipes run the other way, parts are listed backwards. */
export function mirrored(record: CaseRecord): CaseRecord {
  const turned = JSON.parse(
    JSON.stringify(record).replace(/left|right/g, (word) => SWAP[word]!),
  ) as CaseRecord;
  for (const pipe of turned.heatPipes ?? []) {
    const length = pipe.lengthMm as number;
    pipe.along = [...(pipe.along ?? [])].reverse().map((a) => {
      const out = { ...a };
      delete out.fromMm;
      delete out.toMm;
      if (a.toMm !== undefined) out.fromMm = length - (a.toMm as number);
      if (a.fromMm !== undefined) out.toMm = length - (a.fromMm as number);
      return out;
    });
  }
  for (const key of ['finStacks', 'fans', 'vents', 'plates', 'heatPipes'] as const) {
    (turned[key] as unknown[] | undefined)?.reverse();
  }
  return completeRecord(turned);
}

/** The record with the words cpu and gpu exchanged everywhere: ids, roles, covers. */
export function rolesSwapped(record: CaseRecord): CaseRecord {
  const text = JSON.stringify(record).replace(/cpu|gpu/g, (word) =>
    word === 'cpu' ? 'gpu' : 'cpu',
  );
  return completeRecord(JSON.parse(text));
}
