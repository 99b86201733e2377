import {
  BACKSLASH,
  CLOSE_LIST,
  CLOSE_OBJECT,
  COMMA,
  OPEN_LIST,
  OPEN_OBJECT,
  QUOTE,
} from './jsonSigns';

/**
 * The elements of a JSON list as texts, without making their values: of a large list only one has to be in memory at a time.
 *
 * @param text that begins with `[`, spaces apart; it need not be well formed, and neither need its elements
 * @returns a text for each element; null where there is no list that ends where the text does
 * @example splitList('[1, {"a": [2, 3]}]') // ['1', ' {"a": [2, 3]}']
 */
export function splitList(text: string): string[] | null {
  const elements: string[] = [];
  let depth = 0;
  let quoted = false;
  let begun = 0;
  const take = (end: number) => elements.push(text.slice(begun, end));
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (quoted) {
      if (c === BACKSLASH) i++;
      else if (c === QUOTE) quoted = false;
    } else if (c === QUOTE) quoted = true;
    else if (c === OPEN_LIST || c === OPEN_OBJECT) {
      if (++depth === 1) {
        if (c !== OPEN_LIST) return null;
        begun = i + 1;
      }
    } else if (c === COMMA && depth === 1) {
      take(i);
      begun = i + 1;
    } else if (c === CLOSE_LIST || c === CLOSE_OBJECT) {
      if (--depth > 0) continue;
      if (c !== CLOSE_LIST || text.slice(i + 1).trim() !== '') return null;
      if (elements.length || text.slice(begun, i).trim() !== '') take(i);
      return elements;
    }
  }
  return null;
}
