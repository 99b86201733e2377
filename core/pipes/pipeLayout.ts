/** A part along a pipe: its wanted length, and positions where recorded, all in metres. */
export interface AlongPart {
  fromM?: number | undefined;
  toM?: number | undefined;
  naturalM: number;
}

/**
 * Lays the parts a pipe touches along its length, in their order. Recorded positions are kept; the others get their
 * natural length and share the free free evenly before, between and after them. Where the free is too small, the free
 * parts shrink alike.
 *
 * @param parts in order along the pipe
 * @param lengthM pipe length
 * @returns begin and end of each part, rising, within the pipe
 */
export function layAlong(
  parts: readonly AlongPart[],
  lengthM: number,
): { fromM: number; toM: number }[] {
  const out: { fromM: number; toM: number }[] = [];
  let i = 0;
  let start = 0;
  while (i < parts.length) {
    const p = parts[i]!;
    if (p.fromM !== undefined || p.toM !== undefined) {
      const from = Math.max(start, p.fromM ?? Math.max(start, p.toM! - p.naturalM));
      const to = Math.min(lengthM, Math.max(from, p.toM ?? from + p.naturalM));
      out.push({ fromM: from, toM: to });
      start = to;
      i++;
      continue;
    }
    // a run of parts without positions, up to the next fixed one or the pipe's end
    let j = i;
    let wanted = 0;
    for (; j < parts.length; j++) {
      const q = parts[j]!;
      if (q.fromM !== undefined || q.toM !== undefined) break;
      wanted += q.naturalM;
    }
    const next = parts[j];
    const end = next
      ? Math.max(start, next.fromM ?? Math.max(start, next.toM! - next.naturalM))
      : lengthM;
    const free = end - start;
    const scale = wanted > free ? free / Math.max(wanted, 1e-12) : 1;
    const atStart = start === 0 && i === 0;
    const atEnd = !next;
    const runs = j - i;
    // fins sit at a pipe's ends: gaps lie between parts, at an end only beside a fixed part
    const gaps = runs - 1 + (atStart ? 0 : 1) + (atEnd ? 0 : 1);
    const gap = gaps > 0 ? Math.max(0, free - wanted * scale) / gaps : 0;
    let x = start + (atStart ? 0 : gap);
    for (; i < j; i++) {
      const length = parts[i]!.naturalM * scale;
      out.push({ fromM: x, toM: Math.min(end, x + length) });
      x += length + gap;
    }
    start = out[out.length - 1]!.toM;
  }
  return out;
}
