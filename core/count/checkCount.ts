import type { RecordIssue } from '../record/checkRecord';
import { figureValue, type Figure } from '../record/figure';
import type { Count } from './countSchema';
import { hasGpu, saysPipes } from './hasGpu';

/** Fins closer than this cannot be told from a block. */
const LEAST_PITCH_MM = 0.4;

/**
 * Checks what the schema of a count cannot see: what an answer needs, and what cannot be together.
 *
 * @param count that passed `countSchema`
 * @returns issues with the name of the field, the impossible ones first
 */
export function checkCount(count: Count): RecordIssue[] {
  const issues: RecordIssue[] = [];
  const n = (x: Figure | null | undefined) => figureValue(x ?? undefined);
  const impossible = (path: string, message: string) =>
    issues.push({ kind: 'impossible', path, message });
  const missing = (path: string) =>
    issues.push({ kind: 'missing', path, message: 'needs a number' });

  const gpu = hasGpu(count);
  const shared = n(count.pipesShared) ?? 0;
  const ofCpu = n(count.pipesCpu) ?? 0;
  const ofGpu = n(count.pipesGpu) ?? 0;
  if (!gpu && ofGpu > 0) impossible('pipesGpu', `${ofGpu} pipes lead to a GPU of 0 W`);
  if (!gpu && shared > 0) {
    impossible('pipesShared', `${shared} pipes pass through both dies, and the GPU has 0 W`);
  }
  if (count.chamber) {
    const noSize = n(count.chamberWidthMm) === undefined || n(count.chamberDepthMm) === undefined;
    if (noSize && shared + ofCpu + ofGpu === 0) {
      impossible('chamberWidthMm', 'a vapor chamber without pipes needs its width and depth');
    }
    const width = n(count.widthMm);
    const depth = n(count.depthMm);
    if (width !== undefined && (n(count.chamberWidthMm) ?? 0) > width) {
      impossible('chamberWidthMm', `wider than the machine, ${width} mm`);
    }
    if (depth !== undefined && (n(count.chamberDepthMm) ?? 0) > depth) {
      impossible('chamberDepthMm', `deeper than the machine, ${depth} mm`);
    }
  } else {
    if (n(count.chamberWidthMm) !== undefined || n(count.chamberDepthMm) !== undefined) {
      if (count.chamber === false) {
        impossible('chamberWidthMm', 'there is a size, but no vapor chamber');
      }
    }
    if (saysPipes(count) && shared + ofCpu === 0) {
      impossible('pipesCpu', 'no pipe and no vapor chamber leads away from the CPU');
    }
    if (saysPipes(count) && gpu && shared + ofGpu === 0) {
      impossible('pipesGpu', 'no pipe and no vapor chamber leads away from the GPU');
    }
  }
  const diameter = n(count.pipeDiameterMm);
  const pressed = n(count.pipePressedMm);
  if (diameter !== undefined && pressed !== undefined && pressed > diameter) {
    impossible(
      'pipePressedMm',
      `pressed to ${pressed} mm, thicker than its diameter of ${diameter} mm`,
    );
  }
  const width = n(count.stackWidthMm);
  const fins = n(count.finCount);
  if (width !== undefined && fins !== undefined && width / fins < LEAST_PITCH_MM) {
    impossible(
      'finCount',
      `${fins} fins over ${width} mm leave a pitch of only ${(width / fins).toFixed(2)} mm`,
    );
  }
  const area = n(count.finAreaCm2);
  const depth = n(count.stackDepthMm);
  const height = n(count.stackHeightMm);
  if (area !== undefined && [width, depth, height, fins].every((x) => x !== undefined)) {
    const stacks = n(count.stacks) ?? n(count.fans) ?? 1;
    const made = (stacks * fins! * 2 * depth! * height!) / 100;
    if (Math.abs(Math.log(made / area)) > Math.log(1.5)) {
      impossible(
        'finAreaCm2',
        `fins and sizes of the stacks make ${made.toFixed(0)} cm², not ${area} cm²`,
      );
    }
  }
  const thickness = n(count.thicknessMm);
  if (thickness !== undefined) {
    if (height !== undefined && height > thickness) {
      impossible('stackHeightMm', `higher than the machine, ${thickness} mm`);
    }
    if ((n(count.fanHeightMm) ?? 0) > thickness) {
      impossible('fanHeightMm', `higher than the machine, ${thickness} mm`);
    }
  }

  if (n(count.fans) === undefined) missing('fans');
  if (n(count.fanDiameterMm) === undefined) missing('fanDiameterMm');
  if (area === undefined) {
    if (width === undefined) missing('stackWidthMm');
    if (depth === undefined) missing('stackDepthMm');
  }
  const order = { impossible: 0, missing: 1, unconnected: 2 };
  return issues.sort((a, b) => order[a.kind] - order[b.kind]);
}
