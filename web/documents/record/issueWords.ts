import { ownerPath } from '../photos/ownerPath';
import { partsOf, type Draft, type PartList } from './draft';
import { figureWords } from './figureWords';

/**
 * What is wrong with a record, in words that need no path: “depth, fins-left: needs a number”, “the machine needs at least one
 * die”. A message that names its part stands alone.
 *
 * @param draft the record as it stands
 * @param path of the field, parts by their place
 */
export function issueWords(
  draft: Draft,
  { path, message }: { path: string; message: string },
): string {
  const keys = path.split('.').map((key) => (/^\d+$/.test(key) ? Number(key) : key));
  if (keys.length === 1) return /^needs /.test(message) ? `the machine ${message}` : message;
  const [list, index] = keys;
  const part = typeof index === 'number' ? partsOf(draft, list as PartList)[index]?.id : undefined;
  if (part !== undefined && message.includes(`“${part}”`)) return message;
  return `${figureWords(ownerPath(draft, keys))}: ${message}`;
}
