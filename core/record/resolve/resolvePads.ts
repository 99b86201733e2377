import { type PadData } from '../caseData';
import { type CaseRecord } from '../recordSchema';
import { type Resolver } from '../resolver';

const MM = 1e-3;

/** A pad that is missing leads no heat. */
const isMissing = (state: string | undefined) => /^\s*missing\b/i.test(state ?? '');

const PAD_SOURCES = ['storage', 'wireless', 'memory'] as const;

/** Pads beside the main heat path: from a plate, or from storage, wireless and memory, to a plate or the base cover. */
export function resolvePads(record: CaseRecord, r: Resolver): PadData[] {
  return (record.pads ?? [])
    .filter((p) => !isMissing(p.state))
    .map((p) => {
      const at = `pads.${p.id}`;
      const plate = (name: string | undefined) =>
        (record.plates ?? []).findIndex((x) => x.id === name);
      const fromPlate = plate(p.from);
      const side = (key: 'widthMm' | 'lengthMm') =>
        r.figure(`${at}.${key}`, p[key], 'pads.sideMm') * MM;
      const areaM2 = side('widthMm') * side('lengthMm');
      const thickness = r.figure(`${at}.thicknessMm`, p.thicknessMm, 'pads.thicknessMm') * MM;
      const conductivity = r.figure(
        `${at}.conductivityWmK`,
        p.conductivityWmK,
        'pads.conductivityWmK',
      );
      const word = PAD_SOURCES.find((x) => p.from?.toLowerCase().includes(x));
      return {
        id: p.id,
        fromPlate,
        toPlate: plate(p.to),
        conductanceWPerK: (conductivity * areaM2) / thickness,
        areaM2,
        sourceW:
          fromPlate >= 0 || !word
            ? 0
            : r.figure(`${at}.sourceW`, p.sourceW, `pads.sourceW.${word}`),
      };
    });
}
