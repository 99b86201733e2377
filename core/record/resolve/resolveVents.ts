import { type VentData } from '../caseData';
import { figureValue, type Figure } from '../figure';
import { type CaseRecord } from '../recordSchema';
import { type Resolver } from '../resolver';
import { presentStripShare } from './strips';

const MM = 1e-3;

export function resolveVents(record: CaseRecord, r: Resolver): VentData[] {
  const out: VentData[] = [];
  for (const x of record.vents ?? []) {
    if (x.flow === 'passive') continue;
    const fans = (x.fans ?? []).map((id) => record.fans!.findIndex((f) => f.id === id));
    const stacks = (x.finStacks ?? []).map((id) => record.finStacks!.findIndex((s) => s.id === id));
    // an opening that feeds no fan and lets no stack breathe out only helps passively
    if (x.flow === 'intake' ? fans.length === 0 : stacks.length === 0) continue;
    const at = `vents.${x.id}`;
    const open =
      (1 - r.optional(`${at}.blockedShare`, x.blockedShare, 0)) *
      presentStripShare(record, x.id, r);
    const lint = r.optional(`${at}.lintShare`, x.lintShare, 0);
    const side = x.side ?? (x.flow === 'intake' ? 'base' : 'rear');
    const widthM = r.known(`${at}.widthMm`, x.widthMm) * MM;
    const lengthM = r.known(`${at}.lengthMm`, x.lengthMm) * MM;
    out.push({
      id: x.id,
      flow: x.flow,
      side,
      areaM2: widthM * lengthM * open,
      inBase:
        side === 'base'
          ? {
              widthM,
              lengthM,
              toRearRimM:
                r.figure(
                  `${at}.rimMm`,
                  x.rimMm ?? rimOfPlace(record, x.id, lengthM),
                  'vents.rimMm',
                ) * MM,
            }
          : null,
      openShare: r.figure(`${at}.openShare`, x.openShare, 'vents.openShare'),
      meshOpenShare: x.mesh
        ? r.factor('vents.meshOpenShare') * (1 - lint)
        : lint > 0
          ? 1 - lint
          : null,
      fans,
      stacks,
    });
  }
  return out;
}

/** A vent's way to the rear rim where somebody put it on the map: as good as a hand and an eye. */
function rimOfPlace(record: CaseRecord, id: string, lengthM: number): Figure | undefined {
  const y = record.airway?.places?.[id]?.yMm;
  const middleMm = y === undefined ? undefined : figureValue(y);
  if (middleMm === undefined) return undefined;
  const value = Math.max(LEAST_RIM_MM, middleMm - lengthM / MM / 2);
  return { value, plusMinus: PLACED_BY_HAND_MM, origin: 'estimated' };
}

const LEAST_RIM_MM = 2;
const PLACED_BY_HAND_MM = 8;
