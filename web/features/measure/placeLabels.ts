/** Words at a place of a screen. */
export interface Label {
  text: string;
  x: number;
  y: number;
}

/** A figure of 12 px is about this wide, and a line so high. */
const LETTER_PX = 7.3;
const LINE_PX = 15;

/**
 * Which of several words can stand where they are without lying on others or beyond the edge; the first ones have the first choice.
 *
 * @param wide of the screen; what would end beyond it stands further left
 * @returns null for those that find no room
 */
export function placeLabels(labels: readonly Label[], wide: number): (Label | null)[] {
  const taken: { x: number; y: number; w: number }[] = [];
  return labels.map((label) => {
    if (!label.text) return null;
    const w = LETTER_PX * label.text.length;
    const x = Math.max(2, Math.min(label.x, wide - w - 2));
    const y = Math.max(LINE_PX, label.y);
    const lies = taken.some(
      (t) => Math.abs(t.y - y) < LINE_PX && x < t.x + t.w + 4 && t.x < x + w + 4,
    );
    if (lies) return null;
    taken.push({ x, y, w });
    return { text: label.text, x, y };
  });
}
