const FIELDS: Record<string, string> = {
  widthMm: 'width',
  lengthMm: 'length',
  heightMm: 'height',
  depthMm: 'depth',
  thicknessMm: 'thickness',
  diameterMm: 'diameter',
  flattenedMm: 'pressed thickness',
  flattenedWidthMm: 'pressed width',
  finCount: 'fin count',
  finThicknessMm: 'fin thickness',
  impellerDiameterMm: 'impeller',
  bladeHeightMm: 'blade height',
  minRpm: 'least speed',
  maxRpm: 'greatest speed',
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
  massKg: 'mass',
  fromMm: 'begin',
  toMm: 'end',
};

/** A figure's path in field terms: “bond line, gpu” for `dies.gpu.interface.bondLineUm`. */
export function figureWords(path: string): string {
  const parts = path.split('.');
  const field = parts[parts.length - 1]!;
  const word = FIELDS[field] ?? field;
  if (parts.length < 3) {
    return parts[0] === 'shell' && FIELDS[field] ? `shell ${word}` : FIELDS[field] ? word : path;
  }
  const along = parts[2] === 'along' ? ` on ${parts[3]}` : '';
  return `${word}, ${parts[1]}${along}`;
}

/** Which step of a machine's file shows the figure at a path. */
export function stepOfFigure(path: string): 'identify' | 'outside' | 'cooling' {
  const first = path.split('.')[0];
  if (first === 'power') return 'identify';
  return first === 'shell' || first === 'room' || first === 'noise' ? 'outside' : 'cooling';
}
