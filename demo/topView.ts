import { placeParts, type PlacedPart } from '@zugluft/core/airway/placeParts';
import { flattenedWidth } from '@zugluft/core/counting/countingAids';
import { toPixel, toPlane, type Camera } from '@zugluft/core/photo/camera';
import { homography } from '@zugluft/core/photo/homography';
import { referenceItem, SHELL } from '@zugluft/core/photo/knownThings';
import type { Mark } from '@zugluft/core/photo/marksFile';
import type { PhotoMark, PhotoMarks } from '@zugluft/core/photo/photoMarks';
import { figureValue, type Figure } from '@zugluft/core/record/figure';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import sharp from 'sharp';
import { offsetLine } from './offsetLine';

/** A made-up photo of an opened machine, true to its record, with where everything lies in it. */
export interface TopView {
  bytes: Buffer;
  /** The record of what is drawn: lengths of pipes are those of the drawing. */
  record: CaseRecord;
  marks: PhotoMarks;
  widthPx: number;
  heightPx: number;
}

type Mm = readonly [x: number, y: number];

const WIDTH_PX = 3200;
const HEIGHT_PX = 2300;
/** As cameras write it: for film. */
const FILM_MM = 26;
const FOCAL_PX = (FILM_MM / 43.27) * Math.hypot(WIDTH_PX, HEIGHT_PX);
const DRAWN_PX_PER_MM = 8;
const MARGIN_MM = 14;
const ROLL = 0.02;
/** Outline of a memory module. */
export const MODULE_MM = [67.6, 30] as const;
const FIN_ENDS_MM = 0.9;

const n = (figure: Figure | undefined, otherwise: number): number =>
  figureValue(figure) ?? otherwise;

/**
 * Draws a machine from below with its base cover off, seen by a hand-held camera, and marks in it what a reviewer would.
 *
 * @param given its record
 */
export async function topView(given: CaseRecord): Promise<TopView> {
  const plan = placeParts(given);
  const { widthMm: w, depthMm: d, parts } = plan;
  const byId = new Map(parts.map((p) => [p.id, p]));
  // the user's left is at the right of a picture from below
  const middle = (p: PlacedPart): Mm => [w - p.xMm, p.yMm];
  const pipes = pipeLines(given, plan.pipes, (id) => middle(byId.get(id)!));
  const record: CaseRecord = {
    ...given,
    heatPipes: given.heatPipes?.map((pipe, i) => ({
      ...pipe,
      lengthMm: Math.round(pipes[i]!.lengthMm * 10) / 10,
      flattenedWidthMm: Math.round(pipes[i]!.widthMm * 100) / 100,
    })),
  };
  const module: Mm = [0.7 * w, 0.66 * d];
  const svg = drawing(record, { w, d, parts, middle, pipes, module });
  const flat = await sharp(Buffer.from(svg))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const camera: Camera = {
    focalPx: FOCAL_PX,
    middle: [WIDTH_PX / 2, HEIGHT_PX / 2],
    slopeX: 0.06,
    slopeY: -0.09,
    k1: 0,
    distanceMm: (FOCAL_PX * (w + 2.6 * MARGIN_MM)) / WIDTH_PX,
  };
  const toPlaneOf = ([x, y]: Mm): Mm => {
    const [dx, dy] = [x - w / 2, y - d / 2];
    return [dx * Math.cos(ROLL) - dy * Math.sin(ROLL), dx * Math.sin(ROLL) + dy * Math.cos(ROLL)];
  };
  const px = (at: Mm): [number, number] => {
    const [u, v] = toPixel(camera, toPlaneOf(at));
    return [Math.round(u * 10) / 10, Math.round(v * 10) / 10];
  };
  const pixels = photograph(flat.data, flat.info.width, flat.info.height, camera, [w, d]);
  const bytes = await sharp(pixels, { raw: { width: WIDTH_PX, height: HEIGHT_PX, channels: 3 } })
    .jpeg({ quality: 88, chromaSubsampling: '4:4:4' })
    .withExifMerge({ IFD2: { FocalLengthIn35mmFilm: String(FILM_MM) } })
    .toBuffer();
  return {
    bytes,
    record,
    marks: marksOf(record, { w, d, parts, middle, pipes, module }, px),
    widthPx: WIDTH_PX,
    heightPx: HEIGHT_PX,
  };
}

interface PipeLine {
  points: Mm[];
  widthMm: number;
  lengthMm: number;
}

interface Scene {
  w: number;
  d: number;
  parts: readonly PlacedPart[];
  middle: (p: PlacedPart) => Mm;
  pipes: readonly PipeLine[];
  module: Mm;
}

/** Pipes of the same way beside each other, none over another. */
function pipeLines(
  record: CaseRecord,
  ways: readonly { id: string; through: string[] }[],
  at: (id: string) => Mm,
): PipeLine[] {
  const used = new Map<string, number>();
  return (record.heatPipes ?? []).map((pipe, i) => {
    const through = ways[i]?.through ?? [];
    const widthMm = n(
      pipe.flattenedWidthMm,
      flattenedWidth(n(pipe.diameterMm, 8), n(pipe.flattenedMm, n(pipe.diameterMm, 8))),
    );
    const key = through.join();
    const beside = used.get(key) ?? 0;
    used.set(key, beside + 1);
    const centre = through.map(at);
    const points = centre.length > 1 ? offsetLine(centre, (beside - 0.5) * (widthMm + 2)) : centre;
    const lengthMm = points
      .slice(1)
      .reduce((s, p, k) => s + Math.hypot(p[0] - points[k]![0], p[1] - points[k]![1]), 0);
    return { points, widthMm, lengthMm };
  });
}

const corners = ([x, y]: Mm, wide: number, deep: number): Mm[] => [
  [x - wide / 2, y - deep / 2],
  [x + wide / 2, y - deep / 2],
  [x + wide / 2, y + deep / 2],
  [x - wide / 2, y + deep / 2],
];

/** A stack as it lies: fins stand beside each other across, or down the picture where it is turned. */
function stackAs(record: CaseRecord, p: PlacedPart) {
  const s = record.finStacks![p.index]!;
  const wide = n(s.widthMm, p.widthMm);
  const turned = Math.abs(p.widthMm - wide) > Math.abs(p.depthMm - wide);
  const count = n(s.finCount, 40);
  const thickMm = Math.max(0.2, n(s.finThicknessMm, 0.2));
  const [long, deep] = turned ? [p.depthMm, p.widthMm] : [p.widthMm, p.depthMm];
  return { turned, count, thickMm, long, deep, pitchMm: (long - thickMm) / (count - 1) };
}

/** A row of the stack that no pipe lies over: near its rear edge. */
const finRow = (deep: number) => -deep / 2 + Math.min(3, deep / 6);

function drawing(record: CaseRecord, { w, d, parts, middle, pipes, module }: Scene): string {
  const box = (p: PlacedPart, fill: string) => {
    const [x, y] = middle(p);
    return `<rect x="${x - p.widthMm / 2}" y="${y - p.depthMm / 2}" width="${p.widthMm}" height="${p.depthMm}" fill="${fill}"/>`;
  };
  const of = (kind: PlacedPart['kind']) => parts.filter((p) => p.kind === kind);
  const fan = (p: PlacedPart) => {
    const [x, y] = middle(p);
    const r = p.widthMm / 2;
    const blades = Array.from(
      { length: 23 },
      (_, i) =>
        `<path d="M0 ${-0.42 * r}Q${0.22 * r} ${-0.7 * r} ${0.1 * r} ${-0.93 * r}" transform="rotate(${(360 * i) / 23})" stroke="#3d4244" stroke-width="1.3" fill="none"/>`,
    ).join('');
    return `<g transform="translate(${x} ${y})"><rect x="${-1.08 * r}" y="${-1.08 * r}" width="${2.16 * r}" height="${2.16 * r}" rx="5" fill="#9aa1a3"/><circle r="${r}" fill="#15191a"/>${blades}<circle r="${0.42 * r}" fill="#33383a"/></g>`;
  };
  const stack = (p: PlacedPart) => {
    const [x, y] = middle(p);
    const { turned, count, thickMm, long, deep, pitchMm } = stackAs(record, p);
    const fins = Array.from({ length: count }, (_, i) => {
      const at = i * pitchMm - long / 2;
      return turned
        ? `<rect x="${x - deep / 2}" y="${y + at}" width="${deep}" height="${thickMm}" fill="#e6bd95"/>`
        : `<rect x="${x + at}" y="${y - deep / 2}" width="${thickMm}" height="${deep}" fill="#e6bd95"/>`;
    }).join('');
    return `${box(p, '#2c2019')}${fins}`;
  };
  const pipe = ({ points, widthMm }: PipeLine) => {
    const line = points.map((p) => p.join(',')).join(' ');
    const draw = (wide: number, ink: string) =>
      `<polyline points="${line}" fill="none" stroke="${ink}" stroke-width="${wide}" stroke-linejoin="round"/>`;
    return draw(widthMm, '#b8713f') + draw(0.7 * widthMm, '#cc8854');
  };
  const battery = [0, 1, 2, 3]
    .map(
      (i) =>
        `<rect x="${(0.06 + 0.15 * i) * w}" y="${0.66 * d}" width="${0.14 * w}" height="${0.28 * d}" rx="3" fill="#222627"/>`,
    )
    .join('');
  const chips = [0, 1, 2, 3]
    .map(
      (i) =>
        `<rect x="${module[0] + 5 + 15.5 * i}" y="${module[1] + 6}" width="11" height="13" fill="#16191a"/>`,
    )
    .join('');
  const [tw, td] = [w + 2 * MARGIN_MM, d + 2 * MARGIN_MM];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${tw * DRAWN_PX_PER_MM}" height="${td * DRAWN_PX_PER_MM}" viewBox="${-MARGIN_MM} ${-MARGIN_MM} ${tw} ${td}">
    <rect x="${-MARGIN_MM}" y="${-MARGIN_MM}" width="${tw}" height="${td}" fill="#b3a588"/>
    <rect width="${w}" height="${d}" fill="#4a4f51"/>
    <rect x="${0.015 * w}" y="${0.02 * d}" width="${0.97 * w}" height="${0.6 * d}" fill="#1f3a2c"/>
    ${battery}<rect x="${module[0]}" y="${module[1]}" width="${MODULE_MM[0]}" height="${MODULE_MM[1]}" fill="#2f8a58"/>${chips}
    ${of('fan').map(fan).join('')}${of('plate')
      .map((p) => box(p, '#c98a57'))
      .join('')}${of('stack').map(stack).join('')}${pipes.map(pipe).join('')}</svg>`;
}

/** What a camera makes of a flat drawing: seen through its lens, darker to the corners, with a little noise. */
function photograph(drawn: Buffer, dw: number, dh: number, camera: Camera, [w, d]: Mm): Buffer {
  const out = Buffer.alloc(WIDTH_PX * HEIGHT_PX * 3);
  // from the picture to the drawing and back is one projective map
  const ends: Mm[] = [
    [0, 0],
    [WIDTH_PX, 0],
    [WIDTH_PX, HEIGHT_PX],
    [0, HEIGHT_PX],
  ];
  const [cos, sin] = [Math.cos(ROLL), Math.sin(ROLL)];
  const map = homography(
    ends,
    ends.map((end): Mm => {
      const [a, b] = toPlane(camera, end);
      return [
        (a * cos + b * sin + w / 2 + MARGIN_MM) * DRAWN_PX_PER_MM - 0.5,
        (-a * sin + b * cos + d / 2 + MARGIN_MM) * DRAWN_PX_PER_MM - 0.5,
      ];
    }),
  ).to1DArray() as [number, number, number, number, number, number, number, number, number];
  let state = 12345;
  for (let v = 0; v < HEIGHT_PX; v++) {
    for (let u = 0; u < WIDTH_PX; u++) {
      const z = map[6] * (u + 0.5) + map[7] * (v + 0.5) + map[8];
      const x = (map[0] * (u + 0.5) + map[1] * (v + 0.5) + map[2]) / z;
      const y = (map[3] * (u + 0.5) + map[4] * (v + 0.5) + map[5]) / z;
      const i = x < 0 ? 0 : x > dw - 2 ? dw - 2 : Math.floor(x);
      const j = y < 0 ? 0 : y > dh - 2 ? dh - 2 : Math.floor(y);
      const fx = Math.min(1, Math.max(0, x - i));
      const fy = Math.min(1, Math.max(0, y - j));
      const off = Math.hypot(u / WIDTH_PX - 0.5, v / HEIGHT_PX - 0.5);
      const light = 1.04 - 0.28 * off * off;
      state = (Math.imul(state, 1103515245) + 12345) & 0x7fffffff;
      const noise = ((state >> 12) % 7) - 3;
      const at = (j * dw + i) * 3;
      const to = (v * WIDTH_PX + u) * 3;
      for (let c = 0; c < 3; c++) {
        const top = drawn[at + c]! * (1 - fx) + drawn[at + 3 + c]! * fx;
        const below = drawn[at + 3 * dw + c]! * (1 - fx) + drawn[at + 3 * dw + 3 + c]! * fx;
        const value = (top * (1 - fy) + below * fy) * light + noise;
        out[to + c] = value < 0 ? 0 : value > 255 ? 255 : Math.round(value);
      }
    }
  }
  return out;
}

/** What a reviewer would mark: references, then each part by what is seen of it. */
function marksOf(
  record: CaseRecord,
  { w, d, parts, middle, pipes, module }: Scene,
  px: (at: Mm) => [number, number],
): PhotoMarks {
  const marks: PhotoMark[] = [];
  const add = (id: string, kind: Mark['kind'], at: readonly Mm[], figure: string) =>
    marks.push({ id, mark: { kind, points: at.map(px) }, figure });
  for (const p of parts) {
    const [x, y] = middle(p);
    if (p.kind === 'fan') {
      const rim = [0.4, 1.7, 2.9, 4.2, 5.4].map((t): Mm => [
        x + (p.widthMm / 2) * Math.cos(t),
        y + (p.widthMm / 2) * Math.sin(t),
      ]);
      add(p.id, 'circle', rim, `fans.${p.id}.impellerDiameterMm`);
    } else if (p.kind === 'stack') {
      const { turned, long, deep } = stackAs(record, p);
      const end = long / 2 + FIN_ENDS_MM;
      const row = finRow(deep);
      const across: Mm[] = turned
        ? [
            [x + row, y - end],
            [x + row, y + end],
          ]
        : [
            [x - end, y + row],
            [x + end, y + row],
          ];
      add(`${p.id}-fins`, 'fins', across, `finStacks.${p.id}.finCount`);
      const [a, b, c, e] = corners([x, y], p.widthMm, p.depthMm) as [Mm, Mm, Mm, Mm];
      // width is from the first corner to the second
      add(p.id, 'area', turned ? [b, c, e, a] : [a, b, c, e], `finStacks.${p.id}.widthMm`);
    } else if (p.kind === 'plate') {
      add(p.id, 'area', corners([x, y], p.widthMm, p.depthMm), `plates.${p.id}.widthMm`);
    }
  }
  (record.heatPipes ?? []).forEach(({ id }, i) => {
    const { points, widthMm } = pipes[i]!;
    if (points.length < 2) return;
    add(id, 'path', points, `heatPipes.${id}.lengthMm`);
    // across the pipe, half way along its first piece
    const [[ax, ay], [bx, by]] = [points[0]!, points[1]!];
    const long = Math.hypot(bx - ax, by - ay);
    const [ex, ey] = [(bx - ax) / long, (by - ay) / long];
    const [mx, my] = [ax + 0.6 * (bx - ax), ay + 0.6 * (by - ay)];
    const half = widthMm / 2;
    add(
      `${id}-width`,
      'strip',
      [
        [mx - half * -ey, my - half * ex],
        [mx + half * -ey, my + half * ex],
      ],
      `heatPipes.${id}.flattenedWidthMm`,
    );
  });
  const of = ([x, y]: Mm, wide: number, deep: number) =>
    corners([x + wide / 2, y + deep / 2], wide, deep).map(px);
  return {
    references: [
      {
        id: 'module',
        what: 'memory-module',
        item: referenceItem('rectangle', of(module, ...MODULE_MM), MODULE_MM),
      },
      { id: 'shell', what: SHELL, item: referenceItem('rectangle', of([0, 0], w, d), [w, d]) },
    ],
    marks,
  };
}
