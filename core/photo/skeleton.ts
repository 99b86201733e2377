/**
 * Thins a mask to lines one square wide, in its middle, holding together as it did.
 *
 * @param is 1 inside; nothing at the picture's edge counts
 * Source: Zhang and Suen, “A fast parallel algorithm for thinning digital patterns”, CACM 27 (1984), from memory.
 */
export function skeleton(is: Uint8Array, width: number, height: number): Uint8Array {
  const out = Uint8Array.from(is);
  let inside: number[] = [];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (x === 0 || y === 0 || x === width - 1 || y === height - 1) out[i] = 0;
      else if (out[i]) inside.push(i);
    }
  }
  // round from above, clockwise
  const round = [-width, 1 - width, 1, 1 + width, width, width - 1, -1, -1 - width];
  const goes: number[] = [];
  for (let changed = true; changed;) {
    changed = false;
    for (let half = 0; half < 2; half++) {
      goes.length = 0;
      for (const i of inside) {
        let count = 0;
        let rises = 0;
        let before = out[i + round[7]!]!;
        for (let k = 0; k < 8; k++) {
          const now = out[i + round[k]!]!;
          count += now;
          if (now && !before) rises++;
          before = now;
        }
        if (count < 2 || count > 6 || rises !== 1) continue;
        const [n, e, s, w] = [out[i - width]!, out[i + 1]!, out[i + width]!, out[i - 1]!];
        if (half === 0 ? n * e * s || e * s * w : n * e * w || n * s * w) continue;
        goes.push(i);
      }
      for (const i of goes) out[i] = 0;
      if (goes.length > 0) {
        changed = true;
        inside = inside.filter((i) => out[i]);
      }
    }
  }
  return out;
}
