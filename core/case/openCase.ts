import type { Configuration, Ray } from '../envelope/limitTypes';
import { buildModel } from '../network/machineModel';
import type { MachineModel } from '../network/networkModel';
import type { CaseData } from '../record/caseData';
import type { SettingRecord } from '../record/partSchema';
import type { CaseRecord } from '../record/recordSchema';
import { resolveCase } from '../record/resolveCase';
import type { LabDefaults } from '../record/resolver';
import type { CaseCalibration } from './calibrated';
import { configurationOf } from './configuration';
import type { Laboratory } from './laboratory';

/** What a computation is about; plain data, so that it can be handed to another thread. */
export interface CaseRequest {
  /** A record that `parseRecord` found complete. */
  record: CaseRecord;
  lab?: Laboratory | undefined;
  /** Id of the setting whose limits and CPU:GPU ratio apply; the first one by default. */
  setting?: string | undefined;
  /** CPU to GPU watts with both dies loaded, in place of the setting's; both positive. */
  ratio?: { cpu: number; gpu: number } | undefined;
  /** What bench runs taught of this machine. */
  calibration?: CaseCalibration | null | undefined;
  /** Exact values in place of figures and defaults, by path; they stand over a calibration's. */
  overrides?: ReadonlyMap<string, number> | undefined;
}

/** A case with everything resolved: the one input of every computation. */
export interface OpenCase {
  request: CaseRequest;
  record: CaseRecord;
  lab: Laboratory;
  labDefaults: LabDefaults;
  setting: SettingRecord | undefined;
  calibration: CaseCalibration | null;
  /** What stands in for figures and defaults: a calibration's values, and over them the overrides. */
  standIns: ReadonlyMap<string, number> | undefined;
  data: CaseData;
  model: MachineModel;
  /** Limits of the setting, and the direction in which both dies are loaded. */
  config: Configuration;
  ratio: Ray;
}

/** A setting was asked for that the record does not have. */
export class UnknownSettingError extends Error {}

/**
 * Resolves record, laboratory, setting and calibration once, for whatever is then asked of the machine.
 *
 * @param request record and what applies to it
 * @throws UnknownSettingError where the setting's id is not in the record
 * @example estimate(openCase({ record, setting: 'quiet' }), { caps: [36] })
 */
export function openCase(request: CaseRequest): OpenCase {
  const { record, lab = {}, calibration = null, overrides } = request;
  const labDefaults = lab.defaults ?? {};
  const setting = settingOf(record, request.setting);
  const standIns = standInsOf(calibration, overrides);
  const data = resolveCase(record, standIns, { lab: labDefaults });
  const model = buildModel(data);
  return {
    request,
    record,
    lab,
    labDefaults,
    setting,
    calibration,
    standIns,
    data,
    model,
    ...configurationOf(setting, model, request.ratio),
  };
}

function settingOf(record: CaseRecord, id: string | undefined): SettingRecord | undefined {
  const settings = record.settings ?? [];
  if (id === undefined) return settings[0];
  const setting = settings.find((s) => s.id === id);
  if (!setting) throw new UnknownSettingError(`there is no setting called “${id}”`);
  return setting;
}

function standInsOf(
  calibration: CaseCalibration | null,
  overrides: ReadonlyMap<string, number> | undefined,
): ReadonlyMap<string, number> | undefined {
  if (!calibration) return overrides;
  const values = calibration.paths.map((path, i) => [path, calibration.values[i]!] as const);
  return new Map([...values, ...(overrides ?? [])]);
}
