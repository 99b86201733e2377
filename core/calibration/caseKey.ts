import type { CaseCalibration } from '../case/calibrated';
import type { CaseRequest } from '../case/openCase';
import { withoutLearned } from '../record/labDefaults';
import { resolveCase } from '../record/resolveCase';

/** FNV-1a, 32 bit; two of them with different starts tell cases apart well enough. */
function fnv(text: string, start: number): string {
  let h = start;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 16_777_619);
  return (h >>> 0).toString(16).padStart(8, '0');
}

/**
 * What a fit stands on, as a short text that is another one where any figure, ±, part or default of the machine is; room, settings and
 * words do not matter, since they are not what a fit learns.
 */
export function caseKeyOf({ record, lab }: Pick<CaseRequest, 'record' | 'lab'>): string {
  const {
    room: _room,
    inputs,
    ...machine
  } = resolveCase({ ...record, room: {} }, undefined, {
    // a fit begins without what was learned
    lab: withoutLearned(lab?.defaults),
  });
  const own = inputs.filter((i) => !i.path.startsWith('room.'));
  const text = JSON.stringify([machine, own]);
  return fnv(text, 0x811c9dc5) + fnv(text, 0x1234567);
}

/** A calibration and what it stands on. */
export interface KeyedCalibration {
  calibration: CaseCalibration;
  caseKey: string;
}

/**
 * A request with the calibration that the machine's estimate stands on, where it still fits the record.
 *
 * @returns the request as it came, and `lapsed`, where the record has changed since the fit
 */
export function withCalibration(
  request: CaseRequest,
  inUse: KeyedCalibration | null,
): { request: CaseRequest; lapsed: boolean } {
  if (!inUse) return { request, lapsed: false };
  if (caseKeyOf(request) !== inUse.caseKey) return { request, lapsed: true };
  return { request: { ...request, calibration: inUse.calibration }, lapsed: false };
}
