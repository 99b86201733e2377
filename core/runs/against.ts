import { openCase, type CaseRequest, type OpenCase } from '../case/openCase';
import { estimateWithDraws } from '../uncertainty/estimateWithDraws';
import type { Cap } from '../envelope/fanStates';
import { machineLevelDbA } from '../sound/machineLevel';
import type { SteadyState } from './analyseLog';
import type { RunLimits } from './events';

/** A steady state held against what its record foretells at its own level and CPU:GPU ratio. */
export interface Against {
  /** Level in dB(A), or full where none was read and no speed tells one. */
  cap: Cap;
  /** What was measured, both dies. */
  measuredW: number;
  /** Central answer, and the band of the draws. */
  watts: number;
  p05: number;
  p50: number;
  p95: number;
  inBand: boolean;
}

const DRAWS = 400;
/** A die below this share of both is not loaded. */
const ALONE = 0.03;

/** What a record says of the limits that its runs may show. */
export function limitsOf({ data, setting, config }: OpenCase): RunLimits {
  const junctionC: RunLimits['junctionC'] = Object.fromEntries(
    data.dies.map((d) => [d.role, d.maxJunctionC]),
  );
  const held = (watts: number | null | undefined) =>
    typeof watts === 'number' && Number.isFinite(watts) ? watts : undefined;
  const cpu = held(config.cpuW);
  const gpu = held(config.gpuW);
  return {
    junctionC,
    sustainedW: { ...(cpu === undefined ? {} : { cpu }), ...(gpu === undefined ? {} : { gpu }) },
    skinC: setting?.skinHeld === true ? data.shell.skinLimitC : null,
    adapterW: config.adapterW,
    fanRpm: Object.fromEntries(data.fans.map((f) => [f.id, f.maxRpm])),
  };
}

/**
 * What was foretold for a steady state.
 *
 * @param request record, setting, laboratory, calibration
 * @param steady the state
 * @param levelDbA read beside the log, where the log holds none
 * @returns null where no die's power was read
 */
export function holdAgainst(
  request: CaseRequest,
  steady: SteadyState,
  levelDbA: number | null = null,
): Against | null {
  const cpuW = Math.max(0, steady.means['cpuPowerW']?.mean ?? 0);
  const gpuW = Math.max(0, steady.means['gpuPowerW']?.mean ?? 0);
  const measuredW = cpuW + gpuW;
  if (!(measuredW > 0)) return null;
  const roomC = steady.means['roomC']?.mean;
  const record =
    roomC === undefined
      ? request.record
      : { ...request.record, room: { ...request.record.room, temperatureC: roomC } };
  const readout =
    cpuW < ALONE * measuredW ? 'gpuAlone' : gpuW < ALONE * measuredW ? 'cpuAlone' : 'together';
  const ratio = readout === 'together' ? { cpu: cpuW, gpu: gpuW } : undefined;
  const open = openCase({ ...request, record, ...(ratio ? { ratio } : {}) });
  const cap = steady.means['levelDbA']?.mean ?? levelDbA ?? levelBySpeed(open, steady) ?? 'full';
  const { estimate } = estimateWithDraws(open, {
    caps: [cap],
    draws: DRAWS,
    seed: 1,
    envelopes: false,
  });
  const told = estimate.caps[0]![readout];
  if (!told) return null;
  const { watts, p05, p50, p95 } = told;
  if (p05 === null || p50 === null || p95 === null) return null;
  return { cap, measuredW, watts, p05, p50, p95, inBand: measuredW >= p05 && measuredW <= p95 };
}

/** Level that the fans have at the speeds read. */
function levelBySpeed({ data }: OpenCase, steady: SteadyState): number | null {
  const rpms = data.fans.map((f) => steady.means[`fanRpm.${f.id}`]?.mean);
  if (rpms.length === 0 || rpms.some((r) => r === undefined)) return null;
  return machineLevelDbA(data, rpms as number[]);
}
