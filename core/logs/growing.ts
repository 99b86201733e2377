const BLOCK = 65_536;

/** Numbers of a list whose length is not known before, kept in blocks so that growing copies nothing. */
export interface Growing {
  length: number;
  push: (value: number) => void;
  set: (index: number, value: number) => void;
  /** All of them as one array; the blocks are given up. */
  take: () => Float64Array;
}

export function growing(): Growing {
  let blocks: Float64Array[] = [];
  let last = new Float64Array(0);
  let used = BLOCK;
  const out: Growing = {
    length: 0,
    push: (value) => {
      if (used === BLOCK) {
        last = new Float64Array(BLOCK);
        blocks.push(last);
        used = 0;
      }
      last[used++] = value;
      out.length++;
    },
    set: (index, value) => {
      blocks[Math.floor(index / BLOCK)]![index % BLOCK] = value;
    },
    take: () => {
      const all = new Float64Array(out.length);
      blocks.forEach((b, k) =>
        all.set(b.subarray(0, Math.min(BLOCK, all.length - k * BLOCK)), k * BLOCK),
      );
      blocks = [];
      return all;
    },
  };
  return out;
}
