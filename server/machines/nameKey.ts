/**
 * What a name is compared by: one form of each sign, no case of any script, single spaces. Stored beside the names, since SQLite
 * knows the case of A to Z alone; another key than this needs a migration that makes all of them anew.
 *
 * @example nameKey(' ÖKOBOOK  Zwei ') // 'ökobook zwei'
 */
export function nameKey(name: string): string {
  return name
    .normalize('NFKC')
    .toUpperCase()
    .toLowerCase()
    .normalize('NFKC')
    .replace(/\s+/g, ' ')
    .trim();
}
