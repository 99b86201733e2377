import type { HeatPipeRecord } from '../record/partSchema';

/** How many pipes pass through both dies, or serve one. */
export interface PipeCounts {
  shared: number;
  cpu: number;
  gpu: number;
}

type Along = NonNullable<HeatPipeRecord['along']>;

/**
 * Lays counted pipes so that every fin stack has one: shared ones with fins at both ends and the plates between, those of one
 * die from its plate to its own side. More stacks than pipes are passed one behind the other.
 *
 * @param counts how many of each
 * @param plates one for all dies, or one for each: the CPU's, then the GPU's
 * @param stacks from the left to the right
 * @param sizes what all pipes have in common
 */
export function layPipes(
  { shared, cpu, gpu }: PipeCounts,
  plates: readonly string[],
  stacks: readonly string[],
  sizes: Pick<HeatPipeRecord, 'diameterMm' | 'flattenedMm'>,
): HeatPipeRecord[] {
  const half = Math.ceil(stacks.length / 2);
  const left = stacks.slice(0, half);
  const right = stacks.slice(half);
  const cpuPlate = plates[0]!;
  const gpuPlate = plates[plates.length - 1]!;
  const middle = [...new Set([cpuPlate, gpuPlate])];
  // without shared pipes each die's own ones have to reach all stacks between them
  const cpuSide = shared > 0 || gpu > 0 ? left : stacks;
  const gpuSide = right.length ? right : left;
  const pipes: Along[] = [
    ...Array.from({ length: shared }, (_, k) => [
      ...parts(shareOut(left, k, shared)),
      ...parts(middle),
      ...parts(right.length ? shareOut(right, k, shared) : []),
    ]),
    ...Array.from({ length: cpu }, (_, k) => [
      ...parts([cpuPlate]),
      ...parts(shareOut(cpuSide, k, cpu)),
    ]),
    ...Array.from({ length: gpu }, (_, k) => [
      ...parts([gpuPlate]),
      ...parts(shareOut(cpu > 0 || shared > 0 ? gpuSide : stacks, k, gpu)),
    ]),
  ];
  return pipes.map((along, k) => ({
    id: pipes.length === 1 ? 'pipe' : `pipe-${k + 1}`,
    count: 1,
    ...sizes,
    along,
  }));
}

const parts = (ids: readonly string[]): Along => ids.map((part) => ({ part }));

/** What one of several takes of a row, so that all of the row is taken and nobody goes without. */
function shareOut<T>(row: readonly T[], one: number, many: number): T[] {
  const own = row.filter((_, i) => i % many === one);
  return own.length ? own : [row[one % row.length]!];
}
