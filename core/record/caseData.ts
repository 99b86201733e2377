import type { BaseGap, BaseOpening } from '../airflow/baseGap';
import type { FinRow } from '../conduction/fin';
import type { AssumedFigure, CaseInput } from './resolver';

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
    boardWPerK: number;
    insideAirWm2K: number;
    skinLimitC: number;
    exhaustLimitC: number;
    /** Gap under the base. */
    gap: BaseGap;
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
    /** Of the room's air. */
    densityKgM3: number;
    /** Error of a recorded sweep as a whole, dB. */
    sweepOffsetDb: number;
    distanceM: number;
    sweep: { rpm: Record<string, number>; dbA: number }[];
  };
  pads: PadData[];
  assumed: AssumedFigure[];
  /** All that went into the case, recorded or assumed. */
  inputs: CaseInput[];
  /** Paths in the order in which they were asked for. */
  order: string[];
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
  junctionResistanceKPerW: number;
  resistances: { dieKPerW: number; interfaceKPerW: number };
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
  vaporGapM: number;
  /** Of a vapor chamber. */
  wick: WickData | null;
  chamberFluxWm2: number;
  /** Model form of what its wick carries. */
  chamberLimitFactor: number;
  /** Centre of each die on the plate from its corner, where recorded or laid side by side. */
  centres: { xM: number; yM: number }[];
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
  /** Of wall and wick as far as heat has to get through them. */
  contactWallM: number;
  contactWickM: number;
  wick: WickData;
  vaporAreaM2: number;
  vaporGapM: number;
  vaporWidthM: number;
  wickAreaM2: number;
  limitFactor: number;
  /** Share of its reach that bends leave. */
  bendFactor: number;
  /** Radius of the bubbles that start boiling in the wick. */
  nucleationM: number;
  contacts: { part: { kind: 'plate' | 'stack'; index: number }; fromM: number; toM: number }[];
  solderM2KPerW: number;
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
  plateJointM2KPerW: number;
  /** Pipes in the order the air meets them. */
  pipeOrder: number[];
  /** Share of the entrance under lint. */
  lintShare: number;
  /** Air lost before the fins beyond the usual leakage, where a strip that sealed the duct is gone. */
  extraLeakage: number;
  /** Opening assumed behind it where no exhaust vent is recorded. */
  ownExhaust: { areaM2: number; openShare: number } | null;
}

export interface FanData {
  id: string;
  diameterM: number;
  bladeHeightM: number;
  minRpm: number;
  maxRpm: number;
  /** Speed set apart from the others. */
  ownControl: boolean;
  psi: number;
  phi: number;
  curveExponent: number;
  points: { rpm: number; flowM3s: number; pressurePa: number }[];
  /** Opening assumed over it where no intake vent is recorded. */
  ownIntake: { areaM2: number; openShare: number; inBase: BaseOpening } | null;
}

export interface VentData {
  id: string;
  flow: 'intake' | 'exhaust';
  side: 'base' | 'deck' | 'rear' | 'left' | 'right';
  areaM2: number;
  openShare: number;
  meshOpenShare: number | null;
  /** Of an opening in the base. */
  inBase: BaseOpening | null;
  fans: number[];
  stacks: number[];
}

/** A pad that leads heat from a part to a plate or the base cover. */
export interface PadData {
  id: string;
  /** Plate it comes from, −1: a part beside the main heat path (storage, wireless, memory). */
  fromPlate: number;
  /** Plate it leads to, −1: the shell. */
  toPlate: number;
  conductanceWPerK: number;
  areaM2: number;
  /** Watts of the rest of the machine that leave through it. */
  sourceW: number;
}
