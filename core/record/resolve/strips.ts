import { type CaseRecord } from '../recordSchema';
import { type Resolver } from '../resolver';

/** Share that strips leave open, at least a trace. */
export function presentStripShare(record: CaseRecord, at: string, r: Resolver): number {
  let open = 1;
  for (const s of record.strips ?? []) {
    if (s.at === at && (s.state ?? 'present') === 'present') {
      open *= 1 - r.optional(`strips.${s.id}.coversShare`, s.coversShare, 0);
    }
  }
  return Math.max(0.02, open);
}

/** Air lost before a stack because strips that sealed its duct are gone. */
export function lostSeals(record: CaseRecord, at: string, r: Resolver): number {
  let kept = 1;
  for (const s of record.strips ?? []) {
    if (s.at === at && s.purpose === 'duct-seal' && s.state === 'removed') {
      kept *= 1 - r.factor('strips.sealLeakage');
    }
  }
  return 1 - kept;
}
