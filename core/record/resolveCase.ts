import { standardAtmosphere } from '../fluids/standardAtmosphere';
import type { CaseData } from './caseData';
import type { CaseRecord } from './recordSchema';
import { resolveDie } from './resolve/resolveDie';
import { resolveFan } from './resolve/resolveFan';
import { resolveNoise } from './resolve/resolveNoise';
import { resolvePads } from './resolve/resolvePads';
import { resolvePipe } from './resolve/resolvePipe';
import { resolvePlate } from './resolve/resolvePlate';
import { resolveShell } from './resolve/resolveShell';
import { resolveStack } from './resolve/resolveStack';
import { resolveVents } from './resolve/resolveVents';
import { createResolver, type LabDefaults, type Overrides, type Resolver } from './resolver';

const MM = 1e-3;

/**
 * Resolves a complete record into SI numbers, filling every absent figure from the defaults.
 *
 * @param record a record without issues
 * @param overrides values for recorded figures and defaults alike, by path or in order
 * @param options a lab's own defaults; `silent` keeps no account of what was used
 * @returns the case and the list of defaults used
 */
export function resolveCase(
  record: CaseRecord,
  overrides?: Overrides,
  options: { lab?: LabDefaults | undefined; silent?: boolean } = {},
): CaseData {
  return resolveBy(record, createResolver(overrides, options.lab, options.silent));
}

/**
 * {@link resolveCase} by a resolver that is made once for the many cases of a sampling.
 *
 * @param record a record without issues
 * @param r with values in order, ready to be asked for from the first one on
 */
export function resolveBy(record: CaseRecord, r: Resolver): CaseData {
  const dies = record.dies ?? [];
  const plates = (record.plates ?? []).map((_, i) => resolvePlate(record, i, r));
  const pipes = (record.heatPipes ?? []).map((_, i) => resolvePipe(record, i, plates, r));
  const room: CaseData['room'] = {
    temperatureC: r.figure('room.temperatureC', record.room?.temperatureC, 'room.temperatureC'),
    pressurePa: standardAtmosphere(
      r.figure('room.altitudeM', record.room?.altitudeM, 'room.altitudeM'),
    ).pressurePa,
    surface: record.room?.surface ?? 'desk',
    lid: record.room?.lid ?? 'open',
    lidClosedDeckVentShare:
      record.room?.lid === 'closed' ? r.factor('room.lidClosedDeckVentShare') : 1,
  };
  return {
    room,
    shell: resolveShell(record, r),
    power: {
      restW: r.figure('power.restW', record.power?.restW, 'power.restW'),
      restLidShare: record.room?.lid === 'closed' ? 0 : r.factor('power.restLidShare'),
      restAirShare: r.factor('power.restAirShare'),
      fanW: r.factor('power.fanW'),
      adapterW:
        record.power?.source === 'battery' || record.power?.adapterW === undefined
          ? null
          : r.known('power.adapterW', record.power.adapterW),
    },
    evaporatorMarginM: pipes.length ? r.factor('heatPipes.evaporatorMarginMm') * MM : 0,
    dies: dies.map((_, i) => resolveDie(record, i, r)),
    plates,
    pipes,
    stacks: (record.finStacks ?? []).map((_, i) => resolveStack(record, i, pipes, r)),
    fans: (record.fans ?? []).map((_, i) => resolveFan(record, i, r)),
    vents: resolveVents(record, r),
    air: {
      leakage: r.factor('fans.leakage'),
      recirculation: r.factor('fans.recirculation'),
      nusseltFactor: r.factor('finStacks.nusseltFactor'),
      uaFactor: r.factor('finStacks.uaFactor'),
    },
    noise: resolveNoise(record, room, r),
    pads: resolvePads(record, r),
    assumed: r.assumed,
    inputs: r.inputs,
    order: r.order,
  };
}
