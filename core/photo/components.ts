/**
 * Squares of a mask that hold together, corners included.
 *
 * @returns of each group where its squares are, as places in the mask
 */
export function components(is: Uint8Array, width: number, height: number): Int32Array[] {
  const seen = new Uint8Array(is.length);
  const queue = new Int32Array(is.length);
  const out: Int32Array[] = [];
  for (let start = 0; start < is.length; start++) {
    if (!is[start] || seen[start]) continue;
    let count = 0;
    queue[count++] = start;
    seen[start] = 1;
    for (let n = 0; n < count; n++) {
      const i = queue[n]!;
      const x = i % width;
      const y = (i - x) / width;
      for (let dy = y > 0 ? -1 : 0; dy <= (y < height - 1 ? 1 : 0); dy++) {
        for (let dx = x > 0 ? -1 : 0; dx <= (x < width - 1 ? 1 : 0); dx++) {
          const k = i + dy * width + dx;
          if (!is[k] || seen[k]) continue;
          seen[k] = 1;
          queue[count++] = k;
        }
      }
    }
    out.push(queue.slice(0, count));
  }
  return out;
}
