import type { AirSystem } from '../airflow/airSystem';
import type { CaseData } from '../record/caseData';
import type { EliminationPlan } from '../numerics/elimination';
import type { ChamberDemand, ChamberPlace } from '../pipes/chamberFlow';

/** A conductance between two nodes of the network, W/K. */
export interface Link {
  a: number;
  b: number;
  conductanceWPerK: number;
}

/** Where a pipe touches a plate or stack: the link by which heat enters there. */
export interface PipeContact {
  fromM: number;
  toM: number;
  areaM2: number;
  link: Link;
}

/** What a pipe's limits need, worked out once: heat of its contacts → integral and flow at places along it. */
export interface PipeProfile {
  places: number;
  /** One over the count of alike pipes, and the length between the first and the last contact's ends. */
  perHeat: number;
  spanM: number;
  /** places × contacts: integral of the axial flow per watt of each contact. */
  integral: Float64Array;
  /** places × contacts: axial flow per watt of each contact. */
  flow: Float64Array;
}

/** The piece of a stack that one pipe heats. */
export interface Segment {
  node: number;
  share: number;
}

/**
 * A machine as a network: nodes are temperatures above the room. All that does not depend on temperature or fan speed is
 * here: which parts there are is laid out once, their figures can be set anew (`fillModel.ts`). Nodes stand in the order in which they are eliminated: skins and fin segments first.
 */
export interface MachineModel {
  data: CaseData;
  air: AirSystem;
  nodeCount: number;
  nodeNames: string[];
  links: Link[];
  plan: EliminationPlan;
  /** Node under each die, and what its sensor reads beyond it per reported watt of either role. */
  dieNode: number[];
  /** Dies × dies: spreading in the plate, K/W. */
  dieCoupling: Float64Array;
  dieBeyondCpuKPerW: number[];
  dieBeyondGpuKPerW: number[];
  /** Where that resistance lies, for each die's own watts. */
  dieSteps: { dieKPerW: number; interfaceKPerW: number; plateKPerW: number }[];
  /** Plate over each die. */
  diePlate: number[];
  /** Area of wick under each die on a vapor chamber, else 0. */
  dieEvaporatorM2: number[];
  /** What the flows in its chamber ask of that wick, else null. */
  dieDemand: (ChamberDemand | null)[];
  /** Places of each chamber from where the liquid may have the longest way; null where none were sought. */
  chamberPlaces: (ChamberPlace[] | null)[];
  plateNode: number[];
  pipeNode: number[];
  pipeContacts: PipeContact[][];
  pipeProfiles: PipeProfile[];
  /** Pieces of each stack in the order the air meets them. */
  segments: Segment[][];
  /** Spots of the shell: over each plate, and under each pad that leads from a plate to the base cover. */
  skinNode: number[];
  /** Name of the plate or pad. */
  skinPart: string[];
  /** Area that the air inside passes along. */
  skinAreaM2: number[];
  /** Of each pad its spot of the shell, −1 where it has none. */
  skinPads: number[];
  shellNode: number;
  intakeNode: number;
  /** Heat into each node per reported watt, by role, and from storage, wireless and memory through their pads. */
  heatPerCpuW: Float64Array;
  heatPerGpuW: Float64Array;
  padHeatW: Float64Array;
  padTotalW: number;
  /** Watts drawn from the adapter per reported watt, by role. */
  drawPerCpuW: number;
  drawPerGpuW: number;
  hasCpu: boolean;
  hasGpu: boolean;
}
