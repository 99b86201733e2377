/**
 * How far each square of a mask is from the next one outside it, in squares; 0 outside.
 *
 * @param edgeIsOutside whether what lies beyond the picture counts as outside
 * Source: Felzenszwalb and Huttenlocher, “Distance transforms of sampled functions”, Theory of Computing 8 (2012), from memory.
 */
export function distanceWithin(
  is: Uint8Array,
  width: number,
  height: number,
  edgeIsOutside = true,
): Float32Array {
  const FAR = 1e12;
  const edge = edgeIsOutside ? 0 : FAR;
  const out = new Float32Array(width * height);
  const longest = Math.max(width, height) + 2;
  const line = new Float64Array(longest);
  const foot = new Int32Array(longest);
  const from = new Float64Array(longest + 1);
  const low = new Float64Array(longest);
  /** Lower envelope of parabolas on a line whose ends lie outside: squared distances into `low`. */
  const along = (n: number) => {
    let k = 0;
    foot[0] = 0;
    from[0] = -FAR;
    from[1] = FAR;
    for (let q = 1; q < n; q++) {
      let s: number;
      for (;;) {
        const p = foot[k]!;
        s = (line[q]! + q * q - (line[p]! + p * p)) / (2 * q - 2 * p);
        if (s > from[k]! || k === 0) break;
        k--;
      }
      foot[++k] = q;
      from[k] = s;
      from[k + 1] = FAR;
    }
    k = 0;
    for (let q = 0; q < n; q++) {
      while (from[k + 1]! < q) k++;
      const p = foot[k]!;
      low[q] = (q - p) * (q - p) + line[p]!;
    }
  };
  for (let x = 0; x < width; x++) {
    line[0] = line[height + 1] = edge;
    for (let y = 0; y < height; y++) line[y + 1] = is[y * width + x] ? FAR : 0;
    along(height + 2);
    for (let y = 0; y < height; y++) out[y * width + x] = low[y + 1]!;
  }
  for (let y = 0; y < height; y++) {
    line[0] = line[width + 1] = edge;
    for (let x = 0; x < width; x++) line[x + 1] = out[y * width + x]!;
    along(width + 2);
    for (let x = 0; x < width; x++) out[y * width + x] = Math.sqrt(low[x + 1]!);
  }
  return out;
}
