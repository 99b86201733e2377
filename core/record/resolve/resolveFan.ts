import { type FanData } from '../caseData';
import { figureValue } from '../figure';
import { type CaseRecord } from '../recordSchema';
import { type Resolver } from '../resolver';

const v = figureValue;
const MM = 1e-3;

export function resolveFan(record: CaseRecord, index: number, r: Resolver): FanData {
  const f = record.fans![index]!;
  const at = `fans.${f.id}`;
  const diameterM = r.known(`${at}.impellerDiameterMm`, f.impellerDiameterMm) * MM;
  const bladeHeightM =
    r.figure(`${at}.bladeHeightMm`, f.bladeHeightMm, 'fans.bladeHeightShare', diameterM / MM) * MM;
  const maxRpm = r.figure(`${at}.maxRpm`, f.maxRpm, 'fans.tipSpeedMs', 60 / (Math.PI * diameterM));
  const minRpm = Math.min(maxRpm, r.figure(`${at}.minRpm`, f.minRpm, 'fans.minDuty', maxRpm));
  const hasVent = (record.vents ?? []).some((x) => x.flow === 'intake' && x.fans?.includes(f.id));
  const kind = fanKind(record, index);
  return {
    id: f.id,
    diameterM,
    bladeHeightM,
    minRpm,
    maxRpm,
    ownControl: f.control === 'own',
    psi: r.factor('fans.psi', kind),
    phi: r.factor('fans.phi', kind),
    curveExponent: r.factor('fans.curveExponent', kind),
    points: (f.curve ?? []).map((p, k) => ({
      rpm: r.known(`${at}.curve.${k}.rpm`, p.rpm),
      flowM3s: r.known(`${at}.curve.${k}.flowLps`, p.flowLps) * 1e-3,
      pressurePa: r.known(`${at}.curve.${k}.pressurePa`, p.pressurePa),
    })),
    ownIntake: hasVent
      ? null
      : {
          areaM2: (Math.PI / 4) * diameterM * diameterM,
          openShare: r.factor('fans.intakeOpenShare'),
          inBase: {
            widthM: diameterM,
            lengthM: diameterM,
            toRearRimM: r.factor('vents.rimMm') * 1e-3,
          },
        },
  };
}

/** Fans of one size are of one kind and share its factors; in a machine with a single kind it needs no name. */
function fanKind(record: CaseRecord, index: number): string | undefined {
  const fans = record.fans!;
  const here = fans[index]!;
  return fans.every((f) => isAlike(f, here)) ? undefined : sizeOf(here).replaceAll('.', '_');
}

type Fan = NonNullable<CaseRecord['fans']>[number];

function isAlike(a: Fan, b: Fan): boolean {
  return (
    v(a.impellerDiameterMm) === v(b.impellerDiameterMm) && v(a.bladeHeightMm) === v(b.bladeHeightMm)
  );
}

function sizeOf(f: Fan): string {
  return `${v(f.impellerDiameterMm) ?? ''}x${v(f.bladeHeightMm) ?? ''}`;
}
