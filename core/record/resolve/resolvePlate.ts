import { chamberLayers } from '../../pipes/pipeSection';
import { type PlateData } from '../caseData';
import { figureValue } from '../figure';
import { type CaseRecord } from '../recordSchema';
import { type Resolver } from '../resolver';
import { resolveWick } from './resolveWick';

const v = figureValue;
const MM = 1e-3;

export function resolvePlate(record: CaseRecord, index: number, r: Resolver): PlateData {
  const p = record.plates![index]!;
  const at = `plates.${p.id}`;
  const chamber = p.kind === 'vapor-chamber';
  const dies = (p.dies ?? []).map((id) => record.dies!.findIndex((d) => d.id === id));
  // without a recorded size the plate reaches a margin beyond its dies, laid side by side
  const sizes = dies.map((i) => record.dies![i]!);
  const wide = sizes.reduce((sum, d) => sum + (v(d.widthMm) ?? 0), 0);
  const long = Math.max(0, ...sizes.map((d) => v(d.lengthMm) ?? 0));
  const margin =
    p.kind !== 'none' && (v(p.widthMm) === undefined || v(p.lengthMm) === undefined)
      ? r.factor('plates.marginMm')
      : 0;
  const thicknessM =
    p.kind === 'none'
      ? 0
      : r.figure(
          `${at}.thicknessMm`,
          p.thicknessMm,
          chamber ? 'plates.chamberThicknessMm' : 'plates.thicknessMm',
        ) * MM;
  const section = chamberLayers(thicknessM);
  const widthM =
    r.optional(`${at}.widthMm`, p.widthMm, wide + 2 * margin * Math.max(1, dies.length)) * MM;
  const lengthM = r.optional(`${at}.lengthMm`, p.lengthMm, long + 2 * margin) * MM;
  return {
    id: p.id,
    kind: p.kind,
    dies,
    widthM,
    lengthM,
    centres: sizes.map((d, i) => {
      const place = p.places?.find((x) => x.die === d.id);
      if (place) return { xM: v(place.xMm)! * MM, yM: v(place.yMm)! * MM };
      const along = (i + 0.5) / sizes.length;
      return widthM >= lengthM
        ? { xM: along * widthM, yM: lengthM / 2 }
        : { xM: widthM / 2, yM: along * lengthM };
    }),
    thicknessM,
    conductivityWmK: r.factor(
      p.kind === 'aluminium-plate'
        ? 'plates.conductivity.aluminium-plate'
        : 'plates.conductivity.copper-plate',
    ),
    wallM: section.wallM,
    wickM: section.wickThicknessM,
    vaporGapM: section.vaporGapM,
    // a chamber's wick is taken as sintered, as nearly all are
    wick: chamber ? resolveWick('sintered', r) : null,
    chamberFluxWm2: chamber ? r.factor('plates.chamberFluxWcm2') * 1e4 : Infinity,
    chamberLimitFactor: chamber ? r.factor('plates.chamberLimitFactor') : 1,
  };
}
