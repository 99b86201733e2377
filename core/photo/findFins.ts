import { halved } from './halved';
import type { PointPx } from './point';
import type { Picture } from './picture';

/** A field of stripes: lines across them that may run from end to end, and how far one is from the next. */
export interface FoundFins {
  lines: (readonly [PointPx, PointPx])[];
  pitchPx: number;
}

/** Side of the squares that are looked at, px. */
const SIDE = 48;
const LEAST_PITCH = 3;
const MOST_PITCH = 16;
/** Half as large, and half of that: fins that stand further apart than a square can tell. */
const SMALLER = [2, 4];
/** How alike a square is to itself a pitch on. */
const ALIKE = 0.5;
/** Light that comes and goes by less is no fin, as a share of white. */
const LEAST_SWING = 0.015;
/** A stack is at least so many squares long. */
const LEAST_SQUARES = 4;

/**
 * Finds fields of stripes that stand across or down the picture: squares that are alike to themselves a pitch on, beside each other.
 *
 * @returns the longest first; 3 to 64 px from one to the next
 * Source: autocorrelation, as in Press et al., Numerical Recipes, section 13.2.
 */
export function findFins(picture: Picture): FoundFins[] {
  const out = fieldsIn(picture, LEAST_PITCH);
  let smaller = picture;
  for (const by of SMALLER) {
    smaller = halved(smaller);
    const found = fieldsIn(smaller, MOST_PITCH / 2);
    out.push(
      ...found.map(({ lines, pitchPx }) => ({
        pitchPx: by * pitchPx,
        lines: lines.map(([a, b]): readonly [PointPx, PointPx] => [
          [by * a[0], by * a[1]],
          [by * b[0], by * b[1]],
        ]),
      })),
    );
  }
  return out.sort((a, b) => lengthOf(b) - lengthOf(a));
}

function fieldsIn(picture: Picture, leastPitch: number): FoundFins[] {
  const [columns, rows] = [Math.floor(picture.width / SIDE), Math.floor(picture.height / SIDE)];
  const out: FoundFins[] = [];
  for (const down of [false, true]) {
    const pitch = new Float32Array(columns * rows);
    for (let j = 0; j < rows; j++) {
      for (let i = 0; i < columns; i++) {
        pitch[j * columns + i] = pitchOf(picture, i * SIDE, j * SIDE, down, leastPitch);
      }
    }
    out.push(...fieldsOf(pitch, columns, rows, down));
  }
  return out;
}

const lengthOf = ({ lines: [first] }: FoundFins) =>
  first ? Math.hypot(first[0][0] - first[1][0], first[0][1] - first[1][1]) : 0;

/** A picture is seldom quite upright: slopes that a line across a stack may have. */
const SLOPES = [0, 0.03, -0.03, 0.06, -0.06];

/** Pitch of stripes in a square, 0 where there are none. */
function pitchOf(
  { width, light }: Picture,
  left: number,
  top: number,
  down: boolean,
  leastPitch: number,
): number {
  const raw = new Float64Array(SIDE);
  const line = new Float64Array(SIDE);
  const [step, next] = down ? [width, 1] : [1, width];
  let mean = 0;
  // a few rows together: enough against noise, few enough for stripes that lean
  const ROWS = 6;
  for (let k = 0; k < SIDE; k++) {
    let sum = 0;
    const at = top * width + left + k * step + (SIDE / 2) * next;
    for (let r = 0; r < ROWS; r++) sum += light[at + r * next]!;
    raw[k] = sum / ROWS / 65_535;
    mean += raw[k]! / SIDE;
  }
  // thin fins at a pitch between whole pixels: softened, or they would miss themselves
  for (let k = 0; k < SIDE; k++) {
    line[k] = ((raw[k - 1] ?? raw[k]!) + 2 * raw[k]! + (raw[k + 1] ?? raw[k]!)) / 4;
  }
  let power = 0;
  for (let k = 0; k < SIDE; k++) {
    line[k]! -= mean;
    power += line[k]! * line[k]!;
  }
  if (Math.sqrt(power / SIDE) < LEAST_SWING) return 0;
  let fell = false;
  let before = 1;
  for (let lag = 2; lag <= MOST_PITCH + 1; lag++) {
    let sum = 0;
    let own = 0;
    for (let k = lag; k < SIDE; k++) {
      sum += line[k]! * line[k - lag]!;
      own += (line[k]! ** 2 + line[k - lag]! ** 2) / 2;
    }
    const alike = own > 0 ? sum / own : 0;
    if (alike < 0.2) fell = true;
    // the first peak after it fell is the pitch
    else if (fell && alike < before && before > ALIKE && lag - 1 >= leastPitch) return lag - 1;
    before = alike;
  }
  return 0;
}

/** A pipe that lies over a stack is as wide as this many squares: what goes on behind it is the same stack. */
const HOP = 5;
const along = Array.from({ length: HOP }, (_, i) => i + 1).flatMap((k) => [k, -k]);
const NEIGHBOURS: Record<'across' | 'down', readonly (readonly [number, number])[]> = {
  across: [...along.map((k) => [k, 0] as const), [0, 1], [0, -1]],
  down: [...along.map((k) => [0, k] as const), [1, 0], [-1, 0]],
};

/** Runs of squares beside each other with one pitch, joined over rows: a line across each field. */
function fieldsOf(pitch: Float32Array, columns: number, rows: number, down: boolean): FoundFins[] {
  const seen = new Uint8Array(pitch.length);
  const out: FoundFins[] = [];
  for (let start = 0; start < pitch.length; start++) {
    if (seen[start] || !pitch[start]) continue;
    const field = [start];
    seen[start] = 1;
    for (let n = 0; n < field.length; n++) {
      const [i, j] = [field[n]! % columns, Math.floor(field[n]! / columns)];
      for (const [di, dj] of NEIGHBOURS[down ? 'down' : 'across']) {
        const [x, y] = [i + di, j + dj];
        if (x < 0 || y < 0 || x >= columns || y >= rows) continue;
        const k = y * columns + x;
        if (seen[k] || !pitch[k] || Math.abs(pitch[k] - pitch[field[n]!]!) > 1.5) continue;
        seen[k] = 1;
        field.push(k);
      }
    }
    const spans = new Map<number, number[]>();
    for (const k of field) {
      const [i, j] = [k % columns, Math.floor(k / columns)];
      const [row, at] = down ? [i, j] : [j, i];
      spans.set(row, [...(spans.get(row) ?? []), at]);
    }
    const places = [...spans.values()].flat();
    const [from, to] = [Math.min(...places) * SIDE, (Math.max(...places) + 1) * SIDE];
    if (to - from < LEAST_SQUARES * SIDE) continue;
    const mid = field.map((k) => pitch[k]!).sort((a, b) => a - b)[Math.floor(field.length / 2)]!;
    const lines = [...spans.keys()].flatMap((row) =>
      [0.25, 0.75].flatMap((share) =>
        SLOPES.map((slope): readonly [PointPx, PointPx] => {
          const aside = (row + share) * SIDE;
          const rise = (slope * (to - from)) / 2;
          return down
            ? [
                [aside - rise, from],
                [aside + rise, to],
              ]
            : [
                [from, aside - rise],
                [to, aside + rise],
              ];
        }),
      ),
    );
    out.push({ lines, pitchPx: mid });
  }
  return out;
}
