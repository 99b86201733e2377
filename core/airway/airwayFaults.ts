import type { RecordIssue } from '../record/checkRecord';
import type { CaseRecord } from '../record/recordSchema';

/** Something on the plan that cannot work as it is recorded. */
export interface AirwayFault {
  /** The part it is marked at. */
  part: string;
  message: string;
}

/**
 * What a reviewer would see at a glance on the plan: air that comes from nowhere or goes nowhere, pipes that end nowhere, and
 * whatever else the record's own check found unconnected.
 *
 * @param record a record, complete or not
 * @param issues from `parseRecord`
 */
export function airwayFaults(record: CaseRecord, issues: readonly RecordIssue[]): AirwayFault[] {
  const faults: AirwayFault[] = [];
  const say = (part: string, message: string) => {
    if (!faults.some((f) => f.part === part && f.message === message))
      faults.push({ part, message });
  };
  const vents = record.vents ?? [];
  const stacks = record.finStacks ?? [];
  for (const s of stacks) {
    if (!s.fans?.length) say(s.id, 'no fan blows through it');
    const out = vents.some((x) => x.flow === 'exhaust' && x.finStacks?.includes(s.id));
    if (!out) say(s.id, 'no exhaust vent is recorded behind it');
  }
  for (const f of record.fans ?? []) {
    if (!stacks.some((s) => s.fans?.includes(f.id))) say(f.id, 'it blows through no fin stack');
    const fed = vents.some((x) => x.flow === 'intake' && x.fans?.includes(f.id));
    if (!fed) say(f.id, 'no intake vent is recorded for it');
  }
  const warm = new Set((record.plates ?? []).map((p) => p.id));
  const cool = new Set(stacks.map((s) => s.id));
  for (const p of record.heatPipes ?? []) {
    const along = (p.along ?? []).map((a) => a.part);
    if (!along.some((id) => warm.has(id))) say(p.id, 'it starts at no plate');
    if (!along.some((id) => cool.has(id))) say(p.id, 'it ends in no fin stack');
  }
  for (const issue of issues) {
    if (issue.kind !== 'unconnected') continue;
    const [list, index] = issue.path.split('.');
    const parts = record[list as 'fans'];
    const part = Array.isArray(parts) ? parts[Number(index)] : undefined;
    if (part && !faults.some((f) => f.part === part.id)) say(part.id, issue.message);
  }
  return faults;
}
