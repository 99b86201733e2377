import type { z } from 'zod';
import { houseRules, type HouseRules } from './houseRules';
import { rubric, type Rubric } from './serviceScore';

/** What a lab has decided for itself, each kept under its name. */
export interface LabSettings {
  'house-rules': HouseRules;
  rubric: Rubric;
}
export type LabSettingKey = keyof LabSettings;

export const LAB_SETTINGS: { [K in LabSettingKey]: z.ZodType<LabSettings[K]> } = {
  'house-rules': houseRules,
  rubric,
};

export const isLabSetting = (key: string): key is LabSettingKey => Object.hasOwn(LAB_SETTINGS, key);
