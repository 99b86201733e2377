import type { OpenCase } from '../case/openCase';
import { createResolver, type AssumedFigure } from '../record/resolver';

/**
 * Volumetric heat capacities near 300 K, J/m³K.
 * Source: Incropera et al., tables A.1 and A.6, density times specific heat; magnesium and plastic common practice; from memory.
 */
export const VOLUMETRIC_JM3K = {
  copper: 8933 * 385,
  aluminium: 2702 * 903,
  magnesium: 1740 * 1024,
  plastic: 1.6e6,
  silicon: 2330 * 712,
  water: 4.18e6,
};
/** Half of a wick is metal, half liquid. */
const POROSITY = 0.5;

const SHEET = {
  aluminium: VOLUMETRIC_JM3K.aluminium,
  magnesium: VOLUMETRIC_JM3K.magnesium,
  plastic: VOLUMETRIC_JM3K.plastic,
  mixed: 0.5 * (VOLUMETRIC_JM3K.magnesium + VOLUMETRIC_JM3K.plastic),
};

/** What each node of a machine's network stores. */
export interface HeatCapacities {
  /** J/K per node; the intake air stores nothing. */
  nodeJPerK: Float64Array;
  assumed: AssumedFigure[];
}

/**
 * Heat capacity of every node of a network, from the volumes the record gives. Dies count with the plate below them: their
 * own time is far below half a second.
 *
 * @param open the case, or one whose model was changed for a moment
 * @returns J/K by node, all > 0 but the intake's, and the defaults used
 */
export function heatCapacities({
  record,
  model,
  standIns,
  labDefaults,
}: Pick<OpenCase, 'record' | 'model' | 'standIns' | 'labDefaults'>): HeatCapacities {
  const r = createResolver(standIns, labDefaults);
  const { data } = model;
  const nodeJPerK = new Float64Array(model.nodeCount);
  const metal = (kWmK: number) => (kWmK > 300 ? VOLUMETRIC_JM3K.copper : VOLUMETRIC_JM3K.aluminium);
  data.stacks.forEach((s, i) => {
    const fins = (s.widthM / (s.gapM + s.fin.thicknessM)) * s.fin.thicknessM;
    const whole = fins * s.fin.heightM * s.fin.depthM * metal(s.fin.conductivityWmK);
    for (const g of model.segments[i]!) nodeJPerK[g.node] = g.share * whole;
  });
  data.pipes.forEach((p, k) => {
    const outer = (p.outerWidthM - p.thicknessM) * p.thicknessM + (Math.PI / 4) * p.thicknessM ** 2;
    const wall = outer - p.vaporAreaM2 - p.wickAreaM2;
    const perM =
      wall * VOLUMETRIC_JM3K.copper +
      p.wickAreaM2 * ((1 - POROSITY) * VOLUMETRIC_JM3K.copper + POROSITY * VOLUMETRIC_JM3K.water);
    nodeJPerK[model.pipeNode[k]!] = p.count * p.lengthM * perM;
  });
  const dieThicknessM = r.factor('dies.thicknessMm') * 1e-3;
  const sheet = SHEET[record.shell?.material ?? 'mixed'];
  let overPlates = 0;
  data.plates.forEach((p, i) => {
    const area = p.widthM * p.lengthM;
    const wick = (1 - POROSITY) * VOLUMETRIC_JM3K.copper + POROSITY * VOLUMETRIC_JM3K.water;
    const body = p.wick
      ? area * 2 * (p.wallM * VOLUMETRIC_JM3K.copper + p.wickM * wick)
      : area * p.thicknessM * metal(p.conductivityWmK);
    let dies = 0;
    for (const d of p.dies) dies += data.dies[d]!.widthM * data.dies[d]!.lengthM * dieThicknessM;
    nodeJPerK[model.plateNode[i]!] = body + dies * VOLUMETRIC_JM3K.silicon;
    const skin = model.skinAreaM2[i]! * data.shell.sheetThicknessM * sheet;
    nodeJPerK[model.skinNode[i]!] = skin;
    overPlates += skin;
  });
  const pads = data.pads.filter((p) => model.skinPart.indexOf(p.id, data.plates.length) >= 0);
  pads.forEach((p, i) => {
    nodeJPerK[model.skinNode[data.plates.length + i]!] =
      p.areaM2 * data.shell.sheetThicknessM * sheet;
  });
  const massKg = r.figure('shell.massKg', record.shell?.massKg, 'shell.massKg');
  const warm = massKg * r.factor('shell.warmMassShare') * r.factor('shell.specificHeatJkgK');
  nodeJPerK[model.shellNode] = Math.max(0.2 * warm, warm - overPlates);
  return { nodeJPerK, assumed: r.assumed };
}
