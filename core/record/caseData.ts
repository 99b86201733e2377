import type { FinRow } from '../conduction/fin';
import type { AssumedFigure } from './resolver';

/** A record resolved into plain SI numbers, each optional figure filled in: all that the computation needs. */
export interface CaseData {
  room: {
    temperatureC: number;
    pressurePa: number;
    surface: 'desk' | 'soft' | 'stand';
    lid: 'open' | 'closed';
    lidClosedDeckVentShare: number;
  };
  shell: {
    widthM: number;
    depthM: number;
    emissivity: number;
    evenness: number;
    deckShare: number;
    baseShare: number;
    sheetConductivityWmK: number;
    sheetThicknessM: number;
    spotCoefficientWm2K: number;
    plateGapM: number;
    boardWK: number;
    insideAirWm2K: number;
    skinLimitC: number;
    exhaustLimitC: number;
    gapAreaM2: number;
    gapLoss: number;
  };
  power: {
    restW: number;
    /** Share that leaves by the open lid and warms nothing else. */
    restLidShare: number;
    restAirShare: number;
    fanW: number;
    adapterW: number | null;
  };
  /** How far beyond a die a pipe still takes up heat. */
  evaporatorMarginM: number;
  dies: DieData[];
  plates: PlateData[];
  pipes: PipeData[];
  stacks: StackData[];
  fans: FanData[];
  vents: VentData[];
  air: { leakage: number; recirculation: number; nusseltFactor: number; uaFactor: number };
  noise: {
    referenceDbA: number;
    distanceM: number;
    sweep: { rpm: Record<string, number>; dbA: number }[];
  };
  assumed: AssumedFigure[];
}

export interface DieData {
  id: string;
  role: 'cpu' | 'gpu';
  /** Share of the role's watts that belong to this die. */
  roleShare: number;
  widthM: number;
  lengthM: number;
  maxJunctionC: number;
  /** Die and interface, hot spot included where the sensor reads it, K/W. */
  junctionResistanceKW: number;
  resistances: { dieKW: number; interfaceKW: number };
  /** Watts in the die per reported watt, and watts beside it. */
  insideShare: number;
  outsideShare: number;
  /** Index of the plate that takes the heat beside the die, −1: the shell. */
  outsidePlate: number;
}

export interface PlateData {
  id: string;
  kind: 'copper-plate' | 'aluminium-plate' | 'vapor-chamber' | 'none';
  dies: number[];
  widthM: number;
  lengthM: number;
  thicknessM: number;
  conductivityWmK: number;
  wallM: number;
  wickM: number;
  chamberFluxWm2: number;
}

export interface WickData {
  permeabilityM2: number;
  poreM: number;
  conductivityWmK: number;
}

export interface PipeData {
  id: string;
  count: number;
  lengthM: number;
  tiltRad: number;
  outerWidthM: number;
  thicknessM: number;
  wallM: number;
  wickThicknessM: number;
  wick: WickData;
  vaporAreaM2: number;
  vaporGapM: number;
  vaporWidthM: number;
  wickAreaM2: number;
  limitFactor: number;
  contacts: { part: { kind: 'plate' | 'stack'; index: number }; fromM: number; toM: number }[];
  solderM2KW: number;
}

export interface StackData {
  id: string;
  widthM: number;
  passages: number;
  gapM: number;
  openShare: number;
  fin: FinRow;
  contactDepthM: number;
  fans: number[];
  plates: number[];
  plateJointM2KW: number;
  /** Opening assumed behind it where no exhaust vent is recorded. */
  ownExhaust: { areaM2: number; openShare: number } | null;
}

export interface FanData {
  id: string;
  diameterM: number;
  bladeHeightM: number;
  minRpm: number;
  maxRpm: number;
  psi: number;
  phi: number;
  curveExponent: number;
  points: { rpm: number; flowM3s: number; pressurePa: number }[];
  /** Opening assumed over it where no intake vent is recorded. */
  ownIntake: { areaM2: number; openShare: number } | null;
}

export interface VentData {
  id: string;
  flow: 'intake' | 'exhaust';
  side: 'base' | 'deck' | 'rear' | 'left' | 'right';
  areaM2: number;
  openShare: number;
  meshOpenShare: number | null;
  fans: number[];
  stacks: number[];
}
