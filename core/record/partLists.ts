/** Lists of a record whose entries are parts with a name of their own. */
export const PART_LISTS = [
  'dies',
  'plates',
  'heatPipes',
  'finStacks',
  'fans',
  'vents',
  'strips',
  'pads',
] as const;
export type PartListName = (typeof PART_LISTS)[number];
