import { Matrix } from 'ml-matrix';
import type { MachineModel } from '../network/networkModel';
import type { LinearState } from '../network/steadyState';

/**
 * A machine's equations written plainly into a full matrix of ml-matrix, from its conductances and the air of a solved state:
 * the reference for what the core assembles.
 *
 * @param n number of nodes, those of the model first
 * @param edges conductances between nodes, W/K
 */
export function referenceMatrix(
  model: MachineModel,
  state: LinearState,
  n: number,
  edges: readonly (readonly [number, number, number])[],
): Matrix {
  const { data } = model;
  const matrix = Matrix.zeros(n, n);
  const add = (i: number, j: number, x: number) => matrix.set(i, j, matrix.get(i, j) + x);
  for (const [a, b, g] of edges) {
    add(a, a, g);
    add(b, b, g);
    add(a, b, -g);
    add(b, a, -g);
  }
  const { shellNode: s, intakeNode: x } = model;
  add(s, s, state.shellWPerK);
  const drawn = state.flows.fanM3s.reduce((sum, q) => sum + q, 0);
  const inside = data.shell.insideAirWm2K * (drawn / 3e-3) ** 0.8;
  const swept: [number, number][] = [[s, data.shell.widthM * data.shell.depthM]];
  model.skinNode.forEach((k, i) => swept.push([k, model.skinAreaM2[i]!]));
  for (const [node, area] of swept) {
    add(node, node, inside * area);
    add(node, x, -inside * area);
    add(x, x, inside * area);
    add(x, node, -inside * area);
  }
  const r = data.air.recirculation;
  add(x, x, (1 - r) * state.totalCapacityWPerK);
  model.segments.forEach((own, i) => {
    const c = state.capacityWPerK[i]!;
    const outlet = state.outlet[i]!;
    const shares = [1];
    own.forEach((piece, k) => {
      let behind = 1;
      for (let j = own.length - 1; j > k; j--) behind *= 1 - outlet[j + 1]! / behind;
      const e = outlet[k + 1]! / behind;
      add(piece.node, piece.node, e * c);
      add(piece.node, x, -e * c * shares[0]!);
      for (let j = 0; j < k; j++) add(piece.node, own[j]!.node, -e * c * shares[j + 1]!);
      for (let j = 0; j < shares.length; j++) shares[j]! *= 1 - e;
      shares.push(e);
      add(x, piece.node, -r * c * outlet[k + 1]!);
    });
    add(x, x, r * c * (1 - outlet[0]!));
  });
  return matrix;
}
