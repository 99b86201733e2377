/**
 * The name of a write: the same value on top of the same revision has the same one, in this page, after a reload, and in another
 * page that goes on with its draft, so that a write whose answer was lost is taken once.
 *
 * @param seen the revision it is made from
 * @param value plain JSON
 * Source: cyrb53, public domain; from memory.
 */
export function writeName(seen: number, value: unknown): string {
  const text = JSON.stringify(value) ?? '';
  let a = 0xdeadbeef;
  let b = 0x41c6ce57;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    a = Math.imul(a ^ c, 2654435761);
    b = Math.imul(b ^ c, 1597334677);
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  const hex = (x: number) => (x >>> 0).toString(16).padStart(8, '0');
  return `w${seen}-${hex(b)}${hex(a)}-${text.length.toString(36)}`;
}
