import { PART_LISTS } from '@zugluft/core/record/partLists';

const FIELDS: Record<string, string> = {
  widthMm: 'width',
  lengthMm: 'length',
  heightMm: 'height',
  depthMm: 'depth',
  thicknessMm: 'thickness',
  diameterMm: 'diameter',
  flattenedMm: 'flattened thickness',
  flattenedWidthMm: 'flattened width',
  finCount: 'fin count',
  finThicknessMm: 'fin thickness',
  impellerDiameterMm: 'impeller',
  bladeHeightMm: 'blade height',
  minRpm: 'minimum speed',
  maxRpm: 'maximum speed',
  openShare: 'open share',
  blockedShare: 'blocked share',
  lintShare: 'lint',
  coversShare: 'covered share',
  conductivityWmK: 'conductivity',
  bondLineUm: 'bond line',
  ageYears: 'years since renewal',
  maxJunctionC: 'junction limit',
  restW: 'rest of the machine',
  adapterW: 'adapter',
  temperatureC: 'room temperature',
  altitudeM: 'altitude',
  footHeightMm: 'foot height',
  skinLimitC: 'skin limit',
  exhaustLimitC: 'exhaust limit',
  distanceM: 'microphone distance',
  sourceW: 'watts',
  maker: 'maker',
  model: 'model',
  modelCode: 'model code',
  variant: 'variant',
  firmware: 'firmware',
  cpuSustainedW: 'CPU sustained',
  cpuShortW: 'CPU short',
  cpuShortWindowS: 'CPU short window',
  gpuSustainedW: 'GPU sustained',
  afterS: 'begin of later limits',
  massKg: 'mass',
  fromMm: 'begin',
  toMm: 'end',
};

/** A field's name without its unit and in words: “later” for `laterS`, “short window” for `shortWindowS`. */
function plainWord(field: string): string {
  return field
    .replace(/(?:Mm|Um|Kg|WmK|KPerW|Rpm|Deg|DbA|Years|Share|[WSCM])$/, '')
    .replace(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`);
}

/** A figure's path in field terms: “bond line, gpu” for `dies.gpu.interface.bondLineUm`, “shell material” for `shell.material`. */
export function figureWords(path: string): string {
  const parts = path.split('.');
  const [first] = parts;
  const field = parts[parts.length - 1]!;
  if (parts.length === 2 && (PART_LISTS as readonly string[]).includes(first!)) {
    return `${field}, ${plainWord(first!)}`;
  }
  const known = FIELDS[field];
  const word = known ?? plainWord(field);
  if (parts.length < 3) {
    const said = parts.length === 1 || first === 'identity' || (known && first !== 'shell');
    return said ? word : `${first} ${word}`;
  }
  const along = parts[2] === 'along' ? ` on ${parts[3]}` : '';
  return `${word}, ${first === 'power' ? parts[2] : parts[1]}${along}`;
}

/** Which step of a machine's file shows the figure at a path. */
export function stepOfFigure(path: string): 'identify' | 'outside' | 'cooling' {
  const first = path.split('.')[0];
  if (first === 'power') return 'identify';
  return first === 'shell' || first === 'room' || first === 'noise' ? 'outside' : 'cooling';
}
