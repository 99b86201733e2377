import type { OpenCase } from '../case/openCase';
import { figureValue } from '../record/figure';
import { createResolver, type AssumedFigure } from '../record/resolver';

/** Window of the short-term limit and what the firmware does with the fans, where the record does not say. */
export interface FirmwareFigures {
  windowS: number;
  fanStartC: number;
  /** Junction at which the fans are at full speed, or null: so many kelvin below each junction's limit. */
  fanFullC: number | null;
  fanFullBelowLimitK: number;
  hysteresisK: number;
  dutyPerS: number;
  /** Of firmware that holds the skin: kelvin above its limit at which all watts would be cut, and how fast a lasting excess is worked off. */
  skinSpanK: number;
  skinIntegralS: number;
}

/**
 * What is known or assumed of a setting's firmware.
 *
 * @param open the case
 */
export function firmwareFigures({
  setting: s,
  standIns,
  labDefaults,
}: Pick<OpenCase, 'setting' | 'standIns' | 'labDefaults'>): FirmwareFigures & {
  assumed: AssumedFigure[];
} {
  const r = createResolver(standIns, labDefaults);
  const at = `settings.${s?.id ?? 'any'}`;
  const fan = s?.fanRamp;
  const figures = {
    windowS: Math.max(
      1e-3,
      r.figure(`${at}.cpuShortWindowS`, s?.cpuShortWindowS, 'settings.cpuShortWindowS'),
    ),
    fanStartC: r.figure(`${at}.fanRamp.startC`, fan?.startC, 'settings.fanStartC'),
    fanFullC: figureValue(fan?.fullC) ?? null,
    fanFullBelowLimitK: fan?.fullC === undefined ? r.factor('settings.fanFullBelowLimitK') : 0,
    hysteresisK: r.figure(`${at}.fanRamp.hysteresisK`, fan?.hysteresisK, 'settings.fanHysteresisK'),
    dutyPerS: r.factor('settings.fanDutyPerS'),
    skinSpanK: s?.skinHeld ? r.factor('settings.skinSpanK') : 0,
    skinIntegralS: s?.skinHeld ? r.factor('settings.skinIntegralS') : 0,
  };
  return { ...figures, assumed: r.assumed };
}
