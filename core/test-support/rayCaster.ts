import { randomStream } from '../uncertainty/random';
import { normalQuantile } from '../uncertainty/normal';

type Three = readonly [number, number, number];

/**
 * A little camera of the tests' own, turned by angles instead of slopes: it looks at a bench whose z goes up to it.
 */
export interface TestCamera {
  widthPx: number;
  heightPx: number;
  focalPx: number;
  /** Over the place it looks at. */
  distanceMm: number;
  /** Away from straight down, about an axis that lies at this angle in the plane. */
  tiltDeg: number;
  tiltAxisDeg: number;
  /** About the optical axis. */
  rollDeg: number;
  /** Where the optical axis meets the bench. */
  lookAtMm: readonly [number, number];
}

const rad = (deg: number) => (deg * Math.PI) / 180;

/** Rotation of a vector about a unit axis. Source: Rodrigues' formula. */
function rotated([x, y, z]: Three, [a, b, c]: Three, angle: number): Three {
  const cos = Math.cos(angle);
  const sin = Math.sin(angle);
  const dot = (a * x + b * y + c * z) * (1 - cos);
  return [
    x * cos + (b * z - c * y) * sin + a * dot,
    y * cos + (c * x - a * z) * sin + b * dot,
    z * cos + (a * y - b * x) * sin + c * dot,
  ];
}

/** Axes of a camera in the bench's frame: right and down in the picture, and forward; y of the bench goes down in an untilted picture. */
export function axesOf(camera: TestCamera): {
  right: Three;
  down: Three;
  forward: Three;
  eye: Three;
} {
  const axis: Three = [Math.cos(rad(camera.tiltAxisDeg)), Math.sin(rad(camera.tiltAxisDeg)), 0];
  const turn = (v: Three) =>
    rotated(rotated(v, [0, 0, 1], rad(camera.rollDeg)), axis, rad(camera.tiltDeg));
  const forward = turn([0, 0, -1]);
  const d = camera.distanceMm;
  return {
    right: turn([1, 0, 0]),
    down: turn([0, 1, 0]),
    forward,
    eye: [
      camera.lookAtMm[0] - d * forward[0],
      camera.lookAtMm[1] - d * forward[1],
      -d * forward[2],
    ],
  };
}

/** Where a point of the bench is seen, px. */
export function seenAt(camera: TestCamera, [x, y, z]: Three): [number, number] {
  const { right, down, forward, eye } = axesOf(camera);
  const v = [x - eye[0], y - eye[1], z - eye[2]] as const;
  const dot = (a: Three) => a[0] * v[0] + a[1] * v[1] + a[2] * v[2];
  const depth = dot(forward);
  return [
    camera.widthPx / 2 + (camera.focalPx * dot(right)) / depth,
    camera.heightPx / 2 + (camera.focalPx * dot(down)) / depth,
  ];
}

export interface Rendering {
  /** Light of a place of the plane, 0 to 1. */
  lightAt: (xMm: number, yMm: number) => number;
  /** Of the plane over the bench. */
  zMm?: number;
  /** Deviation of a Gaussian blur, px. */
  blurPx?: number;
  /** Deviation of noise, of white. */
  noise?: number;
  /** Share of light that is lost in the corners. */
  vignette?: number;
  seed?: number;
  /** Rays for each pixel, each way. */
  rays?: number;
}

/** A picture of a plane: linear light, 0 to 1, row by row. */
export function rendered(
  camera: TestCamera,
  { lightAt, zMm = 0, blurPx = 0, noise = 0, vignette = 0, seed = 1, rays = 3 }: Rendering,
): Float32Array {
  const { widthPx: w, heightPx: h, focalPx } = camera;
  const { right, down, forward, eye } = axesOf(camera);
  let light: Float32Array = new Float32Array(w * h);
  for (let j = 0; j < h; j++) {
    for (let i = 0; i < w; i++) {
      let sum = 0;
      for (let a = 0; a < rays; a++) {
        for (let b = 0; b < rays; b++) {
          const x = (i + (a + 0.5) / rays - w / 2) / focalPx;
          const y = (j + (b + 0.5) / rays - h / 2) / focalPx;
          const dx = x * right[0] + y * down[0] + forward[0];
          const dy = x * right[1] + y * down[1] + forward[1];
          const dz = x * right[2] + y * down[2] + forward[2];
          const t = (zMm - eye[2]) / dz;
          sum += lightAt(eye[0] + t * dx, eye[1] + t * dy);
        }
      }
      light[j * w + i] = sum / rays ** 2;
    }
  }
  if (blurPx > 0) light = blurred(light, w, h, blurPx);
  const next = randomStream(seed);
  const corner = (w * w + h * h) / 4;
  return light.map((x, k) => {
    const column = k % w;
    const r2 = (column - w / 2) ** 2 + ((k - column) / w - h / 2) ** 2;
    const lit = x * (1 - (vignette * r2) / corner);
    const seen = noise > 0 ? lit + noise * normalQuantile(next()) : lit;
    return seen < 0 ? 0 : seen > 1 ? 1 : seen;
  });
}

function blurred(light: Float32Array, w: number, h: number, deviation: number): Float32Array {
  const far = Math.ceil(4 * deviation);
  const kernel = Array.from({ length: 2 * far + 1 }, (_, k) =>
    Math.exp(-((k - far) ** 2) / (2 * deviation ** 2)),
  );
  const total = kernel.reduce((a, b) => a + b, 0);
  const pass = (from: Float32Array, dx: number, dy: number) => {
    const out = new Float32Array(w * h);
    for (let j = 0; j < h; j++) {
      for (let i = 0; i < w; i++) {
        let sum = 0;
        for (let k = -far; k <= far; k++) {
          const x = i + k * dx;
          const y = j + k * dy;
          const inX = x < 0 ? 0 : x >= w ? w - 1 : x;
          const inY = y < 0 ? 0 : y >= h ? h - 1 : y;
          sum += kernel[k + far]! * from[inY * w + inX]!;
        }
        out[j * w + i] = sum / total;
      }
    }
    return out;
  };
  return pass(pass(light, 1, 0), 0, 1);
}

/** The picture as the measuring takes it. */
export const asPicture = (camera: TestCamera, light: Float32Array) => ({
  width: camera.widthPx,
  height: camera.heightPx,
  light: Uint16Array.from(light, (x) => Math.round(65_535 * x)),
});
