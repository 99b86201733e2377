import { z } from 'zod';
import { MAX_CAP_DBA, MAX_CAPS, MIN_CAP_DBA, USUAL_CAPS_DBA } from '../case/laboratory';
import { pointsRule, type PointsRule } from '../compare/pointsOpinion';
import { houseRules, type HouseRules } from './houseRules';
import { rubric, type Rubric } from './serviceScore';

const BOUNDS = `must lie between ${MIN_CAP_DBA} and ${MAX_CAP_DBA} dB(A)`;

/** The noise caps a laboratory works with; fans off and full speed are always there besides. */
export const labCaps = z.strictObject({
  levelsDbA: z
    .array(z.number('needs a level').min(MIN_CAP_DBA, BOUNDS).max(MAX_CAP_DBA, BOUNDS))
    .min(1, 'needs at least one cap')
    .max(MAX_CAPS, `must be at most ${MAX_CAPS} caps`)
    .refine((levels) => new Set(levels).size === levels.length, 'must each be there once')
    .transform((levels) => [...levels].sort((a, b) => a - b))
    .default([...USUAL_CAPS_DBA]),
});
export type LabCaps = z.infer<typeof labCaps>;

const threshold = (usual: number, most: number, unit: string) =>
  z
    .number(`needs a number of ${unit}`)
    .min(0.1, `must be at least 0.1 ${unit}`)
    .max(most, `must be at most ${most} ${unit}`)
    .default(usual);

/** From where on a gain is noticed: any one of the three (common practice, no source). */
export const noticeable = z.strictObject({
  watts: threshold(3, 100, 'W'),
  db: threshold(1, 20, 'dB'),
  kelvin: threshold(2, 50, 'K'),
});
export type Noticeable = z.infer<typeof noticeable>;

/** Whether each reviewer is asked for a guess before a machine's answer is uncovered. */
export const felt = z.strictObject({ ask: z.boolean().default(false) });
export type Felt = z.infer<typeof felt>;

/** What a lab has decided for itself, each kept under its name. */
export interface LabSettings {
  'house-rules': HouseRules;
  rubric: Rubric;
  caps: LabCaps;
  noticeable: Noticeable;
  points: PointsRule;
  felt: Felt;
}
export type LabSettingKey = keyof LabSettings;

export const LAB_SETTINGS: { [K in LabSettingKey]: z.ZodType<LabSettings[K]> } = {
  'house-rules': houseRules,
  rubric,
  caps: labCaps,
  noticeable,
  points: pointsRule,
  felt,
};

export const isLabSetting = (key: string): key is LabSettingKey => Object.hasOwn(LAB_SETTINGS, key);
