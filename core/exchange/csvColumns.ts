import type { PartListName } from '../record/partLists';
import type { CellKind } from './cells';

export interface CsvColumn {
  /** Path inside the record or part, such as `shell.widthMm` or `interface.kind`. */
  path: string;
  kind: CellKind;
}

const of = (kind: CellKind, ...paths: string[]): CsvColumn[] =>
  paths.map((path) => ({ path, kind }));

/** One row per machine: what stands once in a record. */
export const MACHINE_COLUMNS: readonly CsvColumn[] = [
  ...of(
    'text',
    'identity.maker',
    'identity.model',
    'identity.modelCode',
    'identity.variant',
    'identity.firmware',
  ),
  ...of('whole', 'identity.year'),
  ...of(
    'figure',
    'shell.widthMm',
    'shell.depthMm',
    'shell.thicknessMm',
    'shell.massKg',
    'shell.footHeightMm',
    'shell.skinLimitC',
  ),
  ...of('text', 'shell.material', 'shell.finish', 'power.source'),
  ...of('figure', 'power.adapterW', 'power.restW', 'room.temperatureC', 'room.altitudeM'),
  ...of('text', 'room.surface', 'room.lid'),
  ...of('figure', 'noise.backgroundDbA', 'noise.distanceM'),
];

/** One row per part: every field that any kind of part has; a kind leaves the others' empty. */
export const PART_COLUMNS: readonly (CsvColumn & { lists: readonly PartListName[] })[] = [
  ...field('text', 'role', 'dies'),
  ...field('text', 'kind', 'plates', 'strips'),
  ...field('text', 'flow', 'vents'),
  ...field('text', 'side', 'vents'),
  ...field('figure', 'count', 'heatPipes'),
  ...field('figure', 'widthMm', 'dies', 'plates', 'finStacks', 'vents', 'pads'),
  ...field('figure', 'lengthMm', 'dies', 'plates', 'heatPipes', 'vents', 'pads'),
  ...field('figure', 'heightMm', 'finStacks'),
  ...field('figure', 'depthMm', 'finStacks'),
  ...field('figure', 'thicknessMm', 'plates', 'pads'),
  ...field('figure', 'diameterMm', 'heatPipes'),
  ...field('figure', 'flattenedMm', 'heatPipes'),
  ...field('figure', 'flattenedWidthMm', 'heatPipes'),
  ...field('text', 'wick', 'heatPipes'),
  ...field('figure', 'tiltDeg', 'heatPipes'),
  ...field('figure', 'bends', 'heatPipes'),
  ...field('along', 'along', 'heatPipes'),
  ...field('figure', 'finCount', 'finStacks'),
  ...field('figure', 'finThicknessMm', 'finStacks'),
  ...field('text', 'material', 'finStacks'),
  ...field('text', 'joined', 'finStacks'),
  ...field('figure', 'impellerDiameterMm', 'fans'),
  ...field('figure', 'bladeHeightMm', 'fans'),
  ...field('figure', 'minRpm', 'fans'),
  ...field('figure', 'maxRpm', 'fans'),
  ...field('text', 'control', 'fans'),
  ...field('figure', 'openShare', 'vents'),
  ...field('switch', 'mesh', 'vents'),
  ...field('figure', 'blockedShare', 'finStacks', 'vents'),
  ...field('figure', 'lintShare', 'finStacks', 'vents'),
  ...field('ids', 'dies', 'plates'),
  ...field('ids', 'covers', 'plates'),
  ...field('ids', 'fans', 'finStacks', 'vents'),
  ...field('ids', 'plates', 'finStacks'),
  ...field('ids', 'finStacks', 'vents'),
  ...field('figure', 'maxJunctionC', 'dies'),
  ...field('text', 'sensor', 'dies'),
  ...field('text', 'powerMeaning', 'dies'),
  ...field('text', 'interface.kind', 'dies'),
  ...field('figure', 'interface.conductivityWmK', 'dies'),
  ...field('figure', 'interface.bondLineUm', 'dies'),
  ...field('figure', 'interface.ageYears', 'dies'),
  ...field('text', 'from', 'pads'),
  ...field('text', 'to', 'pads'),
  ...field('figure', 'conductivityWmK', 'pads'),
  ...field('figure', 'sourceW', 'pads'),
  ...field('text', 'at', 'strips'),
  ...field('figure', 'coversShare', 'strips'),
  ...field('text', 'purpose', 'strips'),
  ...field('text', 'state', 'strips', 'pads'),
];

function field(kind: CellKind, path: string, ...lists: PartListName[]) {
  return [{ path, kind, lists }];
}
