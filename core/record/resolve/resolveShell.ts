import { type CaseData } from '../caseData';
import { type CaseRecord, type Feet } from '../recordSchema';
import { type BaseGap } from '../../airflow/baseGap';
import { type Resolver } from '../resolver';

const MM = 1e-3;

/** On a stand the ground is so many times as far away. */
const STAND_HIGHER = 8;

export function resolveShell(record: CaseRecord, r: Resolver): CaseData['shell'] {
  const s = record.shell ?? {};
  const material = s.material ?? 'mixed';
  const surface = record.room?.surface ?? 'desk';
  const widthM = r.figure('shell.widthMm', s.widthMm, 'shell.widthMm') * MM;
  const depthM = r.figure('shell.depthMm', s.depthMm, 'shell.depthMm') * MM;
  const foot = r.figure('shell.footHeightMm', s.footHeightMm, 'shell.footHeightMm') * MM;
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
    gap: {
      // a machine without feet still stands a hair above the desk
      heightM: Math.max(foot, 0.3 * MM) * (surface === 'stand' ? STAND_HIGHER : 1),
      widthM,
      depthM,
      open: openRims(s.feet ?? 'feet', surface === 'soft', r),
      rimLoss: r.factor('vents.gapLoss'),
      turnLoss: r.factor('vents.gapTurnLoss'),
    },
  };
}

/** What feet or rubber strips leave open of each rim; soft ground rises between them. */
function openRims(feet: Feet, soft: boolean, r: Resolver): BaseGap['open'] {
  const left = soft ? r.factor('room.softGapShare') : 1;
  const beside = left * (1 - r.factor('shell.footCover'));
  const strip = feet === 'feet' ? beside : left * (1 - r.factor('shell.stripCover'));
  return {
    rear: feet === 'rear-strip' || feet === 'two-strips' ? strip : beside,
    front: feet === 'front-strip' || feet === 'two-strips' ? strip : beside,
    side: beside,
  };
}
