const FIRST = 4096;

/** Numbers of a list whose length is not known before. */
export interface Growing {
  length: number;
  push: (value: number) => void;
  set: (index: number, value: number) => void;
  /** All of them; nothing may be pushed after. */
  take: () => Float64Array;
}

/**
 * @param expected about how many there will be: with the right room from the beginning nothing is copied on the way
 */
export function growing(expected = 0): Growing {
  let room = new Float64Array(Math.max(FIRST, Math.ceil(expected)));
  const out: Growing = {
    length: 0,
    push: (value) => {
      if (out.length === room.length) {
        const more = new Float64Array(2 * room.length);
        more.set(room);
        room = more;
      }
      room[out.length++] = value;
    },
    set: (index, value) => {
      room[index] = value;
    },
    take: () => room.subarray(0, out.length),
  };
  return out;
}
