import { z } from 'zod';
import { DEFAULT_RULES } from '../../service/houseRules';
import { LAB_SETTINGS, type LabSettings } from '../../service/labSettings';
import { isObject } from '../../record/plainJson';
import { acceptBy, type DocumentKind } from '../documentKind';

const { caps, rubric, noticeable, points, felt } = LAB_SETTINGS;

const labSettings = z.strictObject({
  'house-rules': LAB_SETTINGS['house-rules'],
  rubric,
  caps,
  // versions before knew none of these
  noticeable: noticeable.prefault({}),
  points: points.prefault({}),
  felt: felt.prefault({}),
}) as z.ZodType<LabSettings>;

/** A rule that only another version knew says nothing of the others. */
const known = (key: keyof LabSettings, value: unknown): unknown =>
  key === 'house-rules' && isObject(value)
    ? Object.fromEntries(Object.entries(value).filter(([name]) => name in DEFAULT_RULES))
    : value;

/** What is built in for each setting that was not chosen, or was chosen by a version that knew other choices. */
function read(kept: unknown): LabSettings | null {
  if (!isObject(kept)) return null;
  const of = <K extends keyof LabSettings>(key: K): LabSettings[K] => {
    const own = LAB_SETTINGS[key].safeParse(known(key, kept[key] ?? {}));
    return own.success ? own.data : LAB_SETTINGS[key].parse({});
  };
  return {
    'house-rules': of('house-rules'),
    rubric: of('rubric'),
    caps: of('caps'),
    noticeable: of('noticeable'),
    points: of('points'),
    felt: of('felt'),
  };
}

/** What a laboratory has decided for itself. */
export const labSettingsKind: DocumentKind<LabSettings> = {
  name: 'settings',
  title: 'laboratory settings',
  belongsTo: 'laboratory',
  schema: labSettings,
  blank: () => read({})!,
  read,
  accept: acceptBy(labSettings),
  describe: ({ caps: { levelsDbA } }) => `caps ${levelsDbA.join(', ')} dB(A)`,
  refersTo: () => [],
  travels: null,
};
