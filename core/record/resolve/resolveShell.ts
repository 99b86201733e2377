import { type CaseData } from '../caseData';
import { type CaseRecord } from '../recordSchema';
import { type Resolver } from '../resolver';

const MM = 1e-3;

export function resolveShell(record: CaseRecord, r: Resolver): CaseData['shell'] {
  const s = record.shell ?? {};
  const material = s.material ?? 'mixed';
  const surface = record.room?.surface ?? 'desk';
  const widthM = r.figure('shell.widthMm', s.widthMm, 'shell.widthMm') * MM;
  const depthM = r.figure('shell.depthMm', s.depthMm, 'shell.depthMm') * MM;
  const foot = r.figure('shell.footHeightMm', s.footHeightMm, 'shell.footHeightMm') * MM;
  const open = surface === 'soft' ? r.factor('room.softGapShare') : surface === 'stand' ? 8 : 1;
  return {
    widthM,
    depthM,
    emissivity: r.factor(`shell.emissivity.${s.finish ?? 'painted'}`),
    evenness: r.factor(`shell.evenness.${material}`),
    deckShare: record.room?.lid === 'closed' ? r.factor('room.lidClosedDeckShare') : 1,
    baseShare:
      surface === 'stand'
        ? 1
        : r.factor(surface === 'soft' ? 'room.softBaseShare' : 'room.deskBaseShare'),
    sheetConductivityWmK: r.factor(`shell.conductivity.${material}`),
    sheetThicknessM: r.factor(`shell.sheetMm.${material}`) * MM,
    spotCoefficientWm2K: r.factor('shell.spotCoefficientWm2K'),
    plateGapM: r.factor('shell.plateGapMm') * MM,
    boardWPerK: r.factor('shell.boardWK'),
    insideAirWm2K: r.factor('shell.insideAirWm2K'),
    skinLimitC: r.figure('shell.skinLimitC', s.skinLimitC, 'shell.skinLimitC'),
    exhaustLimitC: r.figure('shell.exhaustLimitC', s.exhaustLimitC, 'shell.exhaustLimitC'),
    // a machine without feet still stands a hair above the desk
    gapAreaM2: 2 * (widthM + depthM) * Math.max(foot, 0.3 * MM) * open,
    gapLoss: r.factor('vents.gapLoss'),
  };
}
