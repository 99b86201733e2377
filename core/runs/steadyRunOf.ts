import type { SteadyRun } from '../calibration/steadyRun';
import type { OpenCase } from '../case/openCase';
import { distanceChange, REFERENCE_DISTANCE_M } from '../sound/fanLevel';
import type { SteadyState } from './analyseLog';
import type { RunDocument } from './runDocument';

/**
 * A steady state of a run as the fit takes it: readings of the record's own parts, the level as it would be read where the
 * laboratory listens.
 *
 * @param run what was done
 * @param state one steady state of its logs, channels already of the record's parts
 * @param open the case
 * @returns the run, or in words what it lacks
 */
export function steadyRunOf(
  run: Pick<RunDocument, 'id' | 'room' | 'microphone' | 'instruments'>,
  state: SteadyState,
  { data }: Pick<OpenCase, 'data'>,
): SteadyRun | { message: string } {
  const mean = (is: string): number | undefined => state.means[is]?.mean;
  const parts = (prefix: string, ids: readonly string[]) => {
    const found = ids.flatMap((id) => {
      const value = mean(`${prefix}.${id}`);
      return value === undefined ? [] : [[id, value] as const];
    });
    return found.length > 0 ? Object.fromEntries(found) : undefined;
  };
  const cpuW = mean('cpuPowerW');
  const gpuW = mean('gpuPowerW');
  const lacks = data.dies.filter((d) => (d.role === 'cpu' ? cpuW : gpuW) === undefined);
  if (lacks.length > 0)
    return { message: `no log holds the power of ${lacks.map((d) => d.id).join(', ')}` };
  const rpm =
    parts(
      'fanRpm',
      data.fans.map((f) => f.id),
    ) ?? {};
  const still = data.fans.filter((f) => rpm[f.id] === undefined);
  if (still.length > 0)
    return { message: `no log holds the speed of ${still.map((f) => f.id).join(', ')}` };
  const junctionC = Object.fromEntries(
    data.dies.flatMap((d) => {
      const value = mean(d.role === 'cpu' ? 'cpuC' : 'gpuC');
      return value === undefined ? [] : [[d.id, value] as const];
    }),
  );
  const level = state.means['levelDbA'];
  const { changeDb, plusMinusDb } = meterOf(run, { data });
  const stacks = data.stacks.map((s) => s.id);
  return {
    id: run.id,
    ambientC: mean('roomC') ?? run.room?.temperatureC ?? data.room.temperatureC,
    rpm,
    cpuW: Math.max(0, cpuW ?? 0),
    gpuW: Math.max(0, gpuW ?? 0),
    heldS: state.toS - state.fromS,
    ...(Object.keys(junctionC).length > 0 ? { junctionC } : {}),
    ...given('exhaustC', parts('exhaustC', stacks)),
    ...given('finC', parts('finC', stacks)),
    ...given(
      'pipeC',
      parts(
        'pipeC',
        data.pipes.map((p) => p.id),
      ),
    ),
    ...given('skinC', mean('skinC')),
    ...given('wallW', mean('wallW')),
    ...(level
      ? {
          levelDbA: level.mean + changeDb,
          ...(level.upperBound ? { levelIsUpperBound: true } : {}),
          ...(plusMinusDb === null ? {} : { plusMinus: { level: Math.max(0.1, plusMinusDb) } }),
        }
      : {}),
  };
}

/**
 * What a run's meter is known to, and what makes a reading of it one where the laboratory listens: its own offset, and the way from
 * its distance to the laboratory's over a reflecting plane.
 *
 * @param run its microphone and instruments
 * @param open the case
 */
export function meterOf(
  run: Pick<RunDocument, 'microphone' | 'instruments'>,
  { data }: Pick<OpenCase, 'data'>,
): { changeDb: number; plusMinusDb: number | null } {
  const distanceM = run.microphone?.distanceM ?? REFERENCE_DISTANCE_M;
  const meter = run.instruments?.find(
    (i) => i.id === run.microphone?.instrument || i.kind === 'sound-level-meter',
  );
  return {
    changeDb:
      (meter?.offset ?? 0) - distanceChange(distanceM) + distanceChange(data.noise.distanceM),
    plusMinusDb: meter?.plusMinus ?? null,
  };
}

const given = <K extends string, V>(key: K, value: V | undefined) =>
  (value === undefined ? {} : { [key]: value }) as Partial<Record<K, V>>;
