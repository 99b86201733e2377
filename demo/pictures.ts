import { placeParts, type PlacedPart } from '@zugluft/core/airway/placeParts';
import type { Cover } from '@zugluft/core/library/attachment';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import sharp from 'sharp';

/** A made-up photo, drawn from a record. */
export interface DemoPicture {
  name: string;
  path: string;
  caption: string;
  covers: Cover[];
  bytes: Buffer;
}

const PX_PER_MM = 4;
const MARGIN_MM = 14;

/** Screws along a rectangle, as shares of its sides. */
export const RIM: readonly [number, number][] = [
  [0.03, 0.05],
  [0.35, 0.04],
  [0.65, 0.04],
  [0.97, 0.05],
  [0.03, 0.95],
  [0.35, 0.96],
  [0.65, 0.96],
  [0.97, 0.95],
];

const screw = (x: number, y: number) =>
  `<g transform="translate(${x} ${y})"><circle r="2.6" fill="#5b5f60"/><circle r="1.9" fill="#8d9293"/><path d="M-1.2 0H1.2M0-1.2V1.2" stroke="#3a3d3e" stroke-width="0.6"/></g>`;

/** Bars as they stand on a label; which are thick follows from a number, so that a picture is always the same. */
function bars(x: number, y: number, widthMm: number, heightMm: number): string {
  let out = '';
  let state = 7;
  for (let at = 0; at < widthMm;) {
    state = (state * 1103515245 + 12345) % 2147483648;
    const thick = 0.4 + (state % 5) * 0.25;
    if (state % 3) {
      out += `<rect x="${x + at}" y="${y}" width="${thick}" height="${heightMm}" fill="#222"/>`;
    }
    at += thick + 0.35;
  }
  return out;
}

function picture(widthMm: number, depthMm: number, inside: string): Promise<Buffer> {
  const [w, h] = [widthMm + 2 * MARGIN_MM, depthMm + 2 * MARGIN_MM];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${w * PX_PER_MM}" height="${h * PX_PER_MM}" viewBox="${-MARGIN_MM} ${-MARGIN_MM} ${w} ${h}">
    <defs>
      <linearGradient id="bench" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="#b9a98c"/><stop offset="1" stop-color="#9c8b6c"/></linearGradient>
      <linearGradient id="metal" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="#777d80"/><stop offset="1" stop-color="#585e61"/></linearGradient>
      <linearGradient id="copper" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#d89a6c"/><stop offset="1" stop-color="#a8653a"/></linearGradient>
    </defs>
    <rect x="${-MARGIN_MM}" y="${-MARGIN_MM}" width="${w}" height="${h}" fill="url(#bench)"/>${inside}</svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 85 }).toBuffer();
}

/** The underside, still closed: vents, feet, screws and the label with its number, covered. */
async function underside(record: CaseRecord): Promise<DemoPicture> {
  const { widthMm: w, depthMm: d, parts } = placeParts(record);
  const label = { x: 0.4 * w, y: 0.62 * d, width: 0.2 * w, height: 0.13 * d };
  const vents = parts.filter((p) => p.kind === 'vent' && record.vents?.[p.index]?.side === 'base');
  const slots = vents.map((p) => {
    const x = w - p.xMm - p.widthMm / 2;
    const rows = Math.floor(p.depthMm / 5);
    return Array.from(
      { length: rows },
      (_, i) =>
        `<rect x="${x}" y="${p.yMm - p.depthMm / 2 + 5 * i}" width="${p.widthMm}" height="2.4" rx="1.2" fill="#1d2021"/>`,
    ).join('');
  });
  const feet = [0.06, 0.9].map(
    (y) =>
      `<rect x="${0.1 * w}" y="${y * d}" width="${0.8 * w}" height="6" rx="3" fill="#2a2c2d"/>`,
  );
  const bytes = await picture(
    w,
    d,
    `<rect width="${w}" height="${d}" rx="9" fill="url(#metal)"/>${slots.join('')}${feet.join('')}
    ${RIM.map(([x, y]) => screw(x * w, y * d)).join('')}
    <rect x="${label.x}" y="${label.y}" width="${label.width}" height="${label.height}" rx="1.5" fill="#e9e7df"/>
    ${bars(label.x + 4, label.y + 4, label.width - 8, 7)}
    ${bars(label.x + 4, label.y + 16, 0.5 * label.width, 3)}`,
  );
  const [pw, ph] = [w + 2 * MARGIN_MM, d + 2 * MARGIN_MM];
  return {
    name: 'underside.jpg',
    path: '',
    caption: 'Underside as received',
    covers: [
      [
        (label.x + 3 + MARGIN_MM) / pw,
        (label.y + 3 + MARGIN_MM) / ph,
        (label.width - 6) / pw,
        9 / ph,
      ],
    ],
    bytes,
  };
}

function fan(p: PlacedPart, x: number): string {
  const r = p.widthMm / 2;
  const blades = Array.from(
    { length: 23 },
    (_, i) =>
      `<path d="M0 ${-0.42 * r} Q ${0.22 * r} ${-0.7 * r} ${0.1 * r} ${-0.94 * r}" transform="rotate(${(360 * i) / 23})" stroke="#4d5254" stroke-width="1.6" fill="none"/>`,
  );
  return `<g transform="translate(${x} ${p.yMm})"><rect x="${-1.1 * r}" y="${-1.1 * r}" width="${2.2 * r}" height="${2.2 * r}" rx="8" fill="#2b2f30"/><circle r="${r}" fill="#16191a"/>${blades.join('')}<circle r="${0.42 * r}" fill="#3a3f41"/><circle r="${0.12 * r}" fill="#717779"/></g>`;
}

/** With the base cover off: board, fans, plates, pipes and fin stacks where the plan has them. */
async function opened(record: CaseRecord): Promise<[DemoPicture, DemoPicture | null]> {
  const plan = placeParts(record);
  const { widthMm: w, depthMm: d, parts } = plan;
  const byId = new Map(parts.map((p) => [p.id, p]));
  const x = (p: PlacedPart) => w - p.xMm;
  const box = (p: PlacedPart, fill: string, rx: number) =>
    `<rect x="${x(p) - p.widthMm / 2}" y="${p.yMm - p.depthMm / 2}" width="${p.widthMm}" height="${p.depthMm}" rx="${rx}" fill="${fill}"/>`;
  const pipes = plan.pipes.map((pipe) => {
    const points = pipe.through.map((id) => byId.get(id)!);
    const line = points.map((p) => `${x(p)},${p.yMm + 7 * pipe.index}`).join(' ');
    return `<polyline points="${line}" fill="none" stroke="#7a4526" stroke-width="10" stroke-linejoin="round" stroke-linecap="round"/><polyline points="${line}" fill="none" stroke="#c98555" stroke-width="8" stroke-linejoin="round" stroke-linecap="round"/>`;
  });
  const fins = (p: PlacedPart) =>
    `${box(p, '#6b3d22', 1)}${Array.from({ length: Math.floor(p.widthMm / 2) }, (_, i) => `<path d="M${x(p) - p.widthMm / 2 + 2 * i + 1} ${p.yMm - p.depthMm / 2}v${p.depthMm}" stroke="#d9a27a" stroke-width="0.7"/>`).join('')}`;
  const of = (kind: PlacedPart['kind']) => parts.filter((p) => p.kind === kind);
  const battery = Array.from(
    { length: 4 },
    (_, i) =>
      `<rect x="${0.08 * w + i * 0.145 * w}" y="${0.64 * d}" width="${0.135 * w}" height="${0.3 * d}" rx="3" fill="#26292b"/>`,
  );
  const bytes = await picture(
    w,
    d,
    `<rect width="${w}" height="${d}" rx="9" fill="#3d4143"/>
    <rect x="${0.02 * w}" y="${0.05 * d}" width="${0.96 * w}" height="${0.55 * d}" rx="4" fill="#23402f"/>
    ${battery.join('')}
    ${of('fan')
      .map((p) => fan(p, x(p)))
      .join('')}
    ${of('plate')
      .map((p) => box(p, 'url(#copper)', 3))
      .join('')}
    ${of('stack').map(fins).join('')}${pipes.join('')}
    ${RIM.map(([a, b]) => screw(a * w, b * d)).join('')}`,
  );
  const whole: DemoPicture = {
    name: 'opened.jpg',
    path: '',
    caption: 'Base cover off, nothing loosened yet',
    covers: [],
    bytes,
  };
  const first = of('fan')[0];
  if (!first) return [whole, null];
  const r = 0.62 * first.widthMm;
  const left = Math.max(0, Math.round((x(first) - r + MARGIN_MM) * PX_PER_MM));
  const top = Math.max(0, Math.round((first.yMm - r + MARGIN_MM) * PX_PER_MM));
  const size = Math.round(2 * r * PX_PER_MM);
  const { width, height } = await sharp(bytes).metadata();
  const near = await sharp(bytes)
    .extract({
      left,
      top,
      width: Math.min(size, width - left),
      height: Math.min(size, height - top),
    })
    .jpeg({ quality: 85 })
    .toBuffer();
  return [
    whole,
    {
      name: `${first.id}.jpg`,
      path: `fans.${first.id}.impellerDiameterMm`,
      caption: 'Impeller across its blades',
      covers: [],
      bytes: near,
    },
  ];
}

/** Pictures of one machine. */
export async function drawPictures(record: CaseRecord): Promise<DemoPicture[]> {
  const [whole, near] = await opened(record);
  return [await underside(record), whole, ...(near ? [near] : [])];
}
