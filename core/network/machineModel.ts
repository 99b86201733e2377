import { buildAirSystem } from '../airflow/buildAirSystem';
import { axialPlaces } from '../pipes/axialProfile';
import type { CaseData } from '../record/caseData';
import { planElimination, type EliminationPlan } from '../numerics/elimination';
import { fillModel } from './fillModel';
import type { Link, MachineModel, PipeContact, PipeProfile, Segment } from './networkModel';

/**
 * Builds the network of a resolved case.
 *
 * @param data a case whose record passed every check
 * @param like a model of the same record, whose plan of elimination is taken over
 */
export function buildModel(data: CaseData, like?: MachineModel): MachineModel {
  const model = layOut(data, like);
  fillModel(model, data);
  if (!like) model.plan = planOf(model);
  return model;
}

/** All that follows from which parts there are; figures are set by {@link fillModel}. */
function layOut(data: CaseData, like?: MachineModel): MachineModel {
  const nodeNames: string[] = [];
  const node = (...words: string[]) => nodeNames.push(words.join(' ')) - 1;
  const skinPads = data.pads.filter((p) => p.fromPlate >= 0 && p.toPlate < 0);
  const skinPart = [...data.plates, ...skinPads].map((p) => p.id);
  const skinNode = skinPart.map((id) => node('skin over', id));
  const segments = data.stacks.map((s) => makeSegments(data, s, node));
  const pipeNode = data.pipes.map((p) => node(p.id));
  const plateNode = data.plates.map((p) => node(p.id));
  const shellNode = node('shell');
  const intakeNode = node('intake');
  const n = nodeNames.length;
  const diePlate = data.dies.map((_, i) => data.plates.findIndex((p) => p.dies.includes(i)));
  const perDie = () => data.dies.map(() => 0);
  return {
    data,
    air: buildAirSystem(data, like?.air),
    nodeCount: n,
    nodeNames,
    links: [],
    plan: like?.plan ?? planElimination(0, []),
    dieNode: diePlate.map((p) => plateNode[p]!),
    diePlate,
    dieCoupling: new Float64Array(data.dies.length ** 2),
    dieBeyondCpuKPerW: perDie(),
    dieBeyondGpuKPerW: perDie(),
    dieSteps: data.dies.map(() => ({ dieKPerW: 0, interfaceKPerW: 0, plateKPerW: 0 })),
    dieEvaporatorM2: perDie(),
    dieDemand: data.dies.map(() => null),
    chamberPlaces: like?.chamberPlaces ?? data.plates.map(() => null),
    plateNode,
    pipeNode,
    pipeContacts: data.pipes.map((p) => p.contacts.map(emptyContact)),
    pipeProfiles: data.pipes.map((p) => emptyProfile(p.contacts)),
    segments,
    skinNode,
    skinPart,
    skinAreaM2: skinNode.map(() => 0),
    skinPads: data.pads.map((p) => {
      const at = skinPads.indexOf(p);
      return at < 0 ? -1 : data.plates.length + at;
    }),
    shellNode,
    intakeNode,
    heatPerCpuW: new Float64Array(n),
    heatPerGpuW: new Float64Array(n),
    padHeatW: new Float64Array(n),
    padTotalW: 0,
    drawPerCpuW: 0,
    drawPerGpuW: 0,
    hasCpu: data.dies.some((d) => d.role === 'cpu'),
    hasGpu: data.dies.some((d) => d.role === 'gpu'),
  };
}

function makeSegments(
  data: CaseData,
  stack: CaseData['stacks'][number],
  node: (...words: string[]) => number,
): Segment[] {
  if (stack.pipeOrder.length === 0) return [{ node: node(stack.id), share: 1 }];
  return stack.pipeOrder.map((k) => ({
    node: node(stack.id, 'at', data.pipes[k]!.id),
    share: 0,
  }));
}

const NO_LINK: Link = { a: 0, b: 0, conductanceWPerK: 0 };
const emptyContact = (): PipeContact => ({ fromM: 0, toM: 0, areaM2: 0, link: NO_LINK });

function emptyProfile(contacts: readonly { fromM: number; toM: number }[]): PipeProfile {
  const places = axialPlaces(contacts).length;
  const each = () => new Float64Array(places * contacts.length);
  return { places, perHeat: 0, spanM: 0, integral: each(), flow: each() };
}

/** Where the matrix may be non-zero: links, air passing from piece to piece and back to the intake, air along the shell. */
function planOf({
  nodeCount: n,
  links,
  segments,
  shellNode,
  skinNode,
  intakeNode,
}: MachineModel): EliminationPlan {
  const pattern = new Uint8Array(n * n);
  const both = (a: number, b: number) => {
    pattern[a * n + b] = 1;
    pattern[b * n + a] = 1;
  };
  for (let i = 0; i < n; i++) pattern[i * n + i] = 1;
  for (const l of links) both(l.a, l.b);
  for (const node of [shellNode, ...skinNode]) both(node, intakeNode);
  for (const own of segments) {
    own.forEach((s, k) => {
      both(s.node, intakeNode);
      for (let j = 0; j < k; j++) pattern[s.node * n + own[j]!.node] = 1;
    });
  }
  return planElimination(n, pattern);
}
