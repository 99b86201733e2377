import { Matrix } from 'ml-matrix';
import { referenceMatrix } from '@zugluft/core/test-support/referenceMatrix';
import type { MachineModel } from '@zugluft/core/network/networkModel';
import type { LinearState } from '@zugluft/core/network/steadyState';
import { COPPER_WMK } from '@zugluft/core/pipes/contactResistance';

/**
 * The same network with every series node kept: solder, wall and wick of each pipe contact, and for each die its base,
 * interface and junction. What the core condenses away, for comparison.
 */
export function uncondensed(
  model: MachineModel,
  state: LinearState,
): { matrix: Matrix; heat: Matrix; junction: number } {
  const { data } = model;
  const edges: [number, number, number][] = [];
  let n = model.nodeCount;
  const ofContact = new Set(model.pipeContacts.flatMap((c) => c.map((x) => x.link)));
  for (const l of model.links) if (!ofContact.has(l)) edges.push([l.a, l.b, l.conductanceWPerK]);
  model.pipeContacts.forEach((contacts, k) => {
    const p = data.pipes[k]!;
    const pieces = [
      p.solderM2KPerW,
      p.wallM / COPPER_WMK,
      p.wickThicknessM / p.wick.conductivityWmK,
    ];
    const own = pieces.reduce((sum, r) => sum + r, 0);
    for (const c of contacts) {
      // what a chamber adds stays with the first piece
      const whole = 1 / c.link.conductanceWPerK;
      const parts = pieces.map((r) => (r / own) * whole);
      edges.push([c.link.a, n, 1 / parts[0]!], [n, n + 1, 1 / parts[1]!]);
      edges.push([n + 1, c.link.b, 1 / parts[2]!]);
      n += 2;
    }
  });
  const junctions = data.dies.map((_, i) => {
    const s = model.dieSteps[i]!;
    edges.push([model.dieNode[i]!, n, 1 / Math.max(1e-9, s.plateKPerW)]);
    edges.push([n, n + 1, 1 / s.interfaceKPerW], [n + 1, n + 2, 1 / s.dieKPerW]);
    n += 3;
    return n - 1;
  });
  const matrix = referenceMatrix(model, state, n, edges);
  const heat = Matrix.zeros(n, 1);
  data.dies.forEach((d, i) => {
    if (d.role === 'cpu') heat.set(junctions[i]!, 0, d.roleShare * d.insideShare);
  });
  data.dies.forEach((d) => {
    if (d.role !== 'cpu') return;
    const at = d.outsidePlate >= 0 ? model.plateNode[d.outsidePlate]! : model.shellNode;
    heat.set(at, 0, heat.get(at, 0) + d.roleShare * d.outsideShare);
  });
  return { matrix, heat, junction: junctions[data.dies.findIndex((d) => d.role === 'cpu')]! };
}
