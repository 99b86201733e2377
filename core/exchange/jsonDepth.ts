/**
 * How deep objects and lists are nested in a JSON text, without making them: so that a hostile file is refused before it is
 * parsed.
 *
 * @param text JSON; what stands in strings does not count
 * @param most stops counting beyond this
 */
export function jsonDepth(text: string, most = 1000): number {
  let depth = 0;
  let deepest = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (quoted) {
      if (c === 92) i++;
      else if (c === 34) quoted = false;
    } else if (c === 34) quoted = true;
    else if (c === 123 || c === 91) {
      depth++;
      if (depth > deepest) deepest = depth;
      if (deepest > most) return deepest;
    } else if (c === 125 || c === 93) depth--;
  }
  return deepest;
}
