import {
  LAB_SETTINGS,
  type LabSettingKey,
  type LabSettings,
} from '@zugluft/core/service/labSettings';
import type { Database } from '../database/openDatabase';
import { parse } from '../security/parse';

export type SettingStore = ReturnType<typeof createSettingStore>;

/** What a lab has decided for itself: house rules, rubric of the service score. Every change is a row of its own. */
export function createSettingStore(db: Database) {
  const { LabSetting } = db.models;
  const read = async <K extends LabSettingKey>(key: K): Promise<LabSettings[K]> => {
    const row = await LabSetting.findOne({ where: { key }, order: [['id', 'DESC']] });
    const kept = LAB_SETTINGS[key].safeParse(row ? JSON.parse(row.value) : {});
    // a choice that this version no longer knows falls back to what is built in
    return kept.success ? kept.data : LAB_SETTINGS[key].parse({});
  };
  return {
    read,

    async all(): Promise<LabSettings> {
      return { 'house-rules': await read('house-rules'), rubric: await read('rubric') };
    },

    async write(key: LabSettingKey, input: unknown): Promise<void> {
      const value = parse(LAB_SETTINGS[key] as never, input);
      await db.write((transaction) =>
        LabSetting.create({ key, value: JSON.stringify(value) }, { transaction }),
      );
    },
  };
}
