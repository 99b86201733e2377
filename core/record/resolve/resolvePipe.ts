import { layAlong } from '../../pipes/pipeLayout';
import { pipeSection } from '../../pipes/pipeSection';
import { type PipeData, type PlateData } from '../caseData';
import { figureValue } from '../figure';
import { type CaseRecord } from '../recordSchema';
import { type Resolver } from '../resolver';
import { resolveWick } from './resolveWick';

const v = figureValue;
const MM = 1e-3;
const MIN_CONTACT_M = 1e-4;

export function resolvePipe(
  record: CaseRecord,
  index: number,
  plates: readonly PlateData[],
  r: Resolver,
): PipeData {
  const p = record.heatPipes![index]!;
  const at = `heatPipes.${p.id}`;
  const wick = p.wick ?? 'sintered';
  const diameterM = r.known(`${at}.diameterMm`, p.diameterMm) * MM;
  const pressed =
    r.figure(`${at}.flattenedMm`, p.flattenedMm, 'heatPipes.pressedShare', diameterM / MM) * MM;
  const width = v(p.flattenedWidthMm);
  const widthM =
    width === undefined ? undefined : r.known(`${at}.flattenedWidthMm`, p.flattenedWidthMm) * MM;
  // what a pipe carries is known by its kind as a whole: its limit factor holds all that nobody sees inside
  const section = pipeSection(diameterM, pressed, widthM, wick, 1, 1);
  const inside = pipeSection(
    diameterM,
    pressed,
    widthM,
    wick,
    r.factor('heatPipes.wallFactor'),
    r.factor('heatPipes.wickFactor'),
  );
  const marginM = r.factor('heatPipes.evaporatorMarginMm') * MM;
  const parts = (p.along ?? []).map((a) => {
    const plate = plates.findIndex((x) => x.id === a.part);
    const stack = (record.finStacks ?? []).findIndex((x) => x.id === a.part);
    const naturalM =
      plate >= 0
        ? plateContactLength(record, plates[plate]!, marginM)
        : (v(record.finStacks![stack]!.widthMm) ?? 50) * MM;
    return {
      part:
        plate >= 0
          ? ({ kind: 'plate', index: plate } as const)
          : ({ kind: 'stack', index: stack } as const),
      naturalM,
      fromM:
        a.fromMm === undefined ? undefined : r.known(`${at}.along.${a.part}.fromMm`, a.fromMm) * MM,
      toM: a.toMm === undefined ? undefined : r.known(`${at}.along.${a.part}.toMm`, a.toMm) * MM,
    };
  });
  const touched = parts.reduce((sum, x) => sum + x.naturalM, 0);
  const furthest = Math.max(touched, ...parts.map((x) => x.toM ?? 0));
  const lengthM =
    r.figure(`${at}.lengthMm`, p.lengthMm, 'heatPipes.lengthFactor', furthest / MM) * MM;
  const laid = layAlong(parts, lengthM);
  return {
    id: p.id,
    count: r.optional(`${at}.count`, p.count, 1),
    lengthM,
    tiltRad: (r.optional(`${at}.tiltDeg`, p.tiltDeg, 0) * Math.PI) / 180,
    ...section,
    contactWallM: inside.wallM,
    contactWickM: inside.wickThicknessM,
    wick: resolveWick(wick, r),
    limitFactor: r.factor(`heatPipes.limitFactor.${wick}`),
    bendFactor: Math.max(
      0.3,
      1 - r.factor('heatPipes.bendLoss') * r.optional(`${at}.bends`, p.bends, 0),
    ),
    nucleationM: r.factor('heatPipes.nucleationUm') * 1e-6,
    contacts: parts.map((x, i) => ({
      part: x.part,
      fromM: laid[i]!.fromM,
      // positions drawn within their ± may cross; a contact keeps a trace of length
      toM: Math.max(laid[i]!.toM, laid[i]!.fromM + MIN_CONTACT_M),
    })),
    solderM2KPerW: r.factor('heatPipes.solderM2KW'),
  };
}

/** A pipe takes up heat only under the dies of a plate and a few millimetres beside them. */
function plateContactLength(record: CaseRecord, plate: PlateData, marginM: number): number {
  let length = 0;
  for (const i of plate.dies) {
    const d = record.dies![i]!;
    const side = Math.sqrt((v(d.widthMm) ?? 0) * (v(d.lengthMm) ?? 0)) * MM;
    length += plate.kind === 'none' ? side : side + 2 * marginM;
  }
  if (length === 0) length = Math.max(plate.widthM, plate.lengthM);
  if (plate.kind === 'vapor-chamber') return Math.max(plate.widthM, plate.lengthM);
  return plate.kind === 'none' ? length : Math.min(length, Math.max(plate.widthM, plate.lengthM));
}
