import type { Lens } from '@zugluft/core/photo/fitScale';
import { measureKept, needsLight, type KeptMeasures } from '@zugluft/core/photo/measureKept';
import type { PhotoMarks } from '@zugluft/core/photo/photoMarks';
import { pictureOf, type Picture } from '@zugluft/core/photo/picture';
import { proposeMarks, type Proposal } from '@zugluft/core/photo/proposals';
import type { Sought } from '@zugluft/core/photo/sought';
import sharp from 'sharp';

/** What the thread of pictures does: work on the full pixels of a photo as it is kept. */
export type PictureJob = { file: string; sha256: string } & (
  | { do: 'measure'; size: readonly [number, number]; lens: Lens; marks: PhotoMarks }
  /** Parts that are found by themselves. */
  | { do: 'propose'; lens: Lens; marks: PhotoMarks; of: readonly Sought[] }
  /** A square piece of it, counted from the top left. */
  | { do: 'tile'; column: number; row: number }
);
export type PictureAnswer =
  { measures: KeptMeasures } | { proposals: Proposal[] } | { tile: Uint8Array | null };
export type DoPictureJob = ((job: PictureJob) => Promise<PictureAnswer>) & {
  end?: () => Promise<unknown>;
};

/** Side of a piece, px. */
export const TILE_PX = 512;
/** A photo's pixels are kept this long after they were last asked for: who measures asks often, and for one photo. */
const KEPT_MS = 60_000;
const TILE_QUALITY = 95;

interface Opened {
  sha256: string;
  rgb: Buffer;
  width: number;
  height: number;
  /** Made when first needed. */
  light: Picture | null;
}

let opened: Promise<Opened> | null = null;
let openedSha256 = '';
let closing: NodeJS.Timeout | undefined;

/** The pixels of a photo; of one photo at a time, since a large one takes hundreds of megabytes. */
function open(file: string, sha256: string): Promise<Opened> {
  clearTimeout(closing);
  closing = setTimeout(() => (opened = null), KEPT_MS);
  closing.unref();
  if (!opened || openedSha256 !== sha256) {
    openedSha256 = sha256;
    const reading = read(file, sha256);
    opened = reading;
    // one that could not be read is tried anew
    reading.catch(() => (opened = null));
  }
  return opened;
}

async function read(file: string, sha256: string): Promise<Opened> {
  const { data, info } = await sharp(file, { limitInputPixels: false })
    .flatten({ background: '#ffffff' })
    .toColourspace('srgb')
    .raw({ depth: 'uchar' })
    .toBuffer({ resolveWithObject: true });
  return { sha256, rgb: data, width: info.width, height: info.height, light: null };
}

const lightOf = (o: Opened): Picture => (o.light ??= pictureOf(o.rgb, o.width, o.height));

/** Does a job on the full pixels of a photo. */
export async function doPictureJob(job: PictureJob): Promise<PictureAnswer> {
  if (job.do === 'tile') return { tile: await tile(await open(job.file, job.sha256), job) };
  if (job.do === 'propose') {
    const photo = await open(job.file, job.sha256);
    return { proposals: proposeMarks(lightOf(photo), job.lens, job.marks, photo.rgb, job.of) };
  }
  const { size, lens, marks } = job;
  const dark = !marks.marks.some(({ mark }) => needsLight(mark.kind));
  const light = dark ? null : lightOf(await open(job.file, job.sha256));
  return { measures: measureKept(light, size, lens, marks) };
}

/** A piece of a photo, null beyond its edges. */
async function tile(
  { rgb, width, height }: Opened,
  { column, row }: { column: number; row: number },
): Promise<Uint8Array | null> {
  const [left, top] = [column * TILE_PX, row * TILE_PX];
  if (left >= width || top >= height) return null;
  const [w, h] = [Math.min(TILE_PX, width - left), Math.min(TILE_PX, height - top)];
  // only its own rows are copied
  const piece = Buffer.alloc(w * h * 3);
  for (let y = 0; y < h; y++) {
    const from = ((top + y) * width + left) * 3;
    rgb.copy(piece, y * w * 3, from, from + w * 3);
  }
  return sharp(piece, { raw: { width: w, height: h, channels: 3 } })
    .jpeg({ quality: TILE_QUALITY, chromaSubsampling: '4:4:4' })
    .toBuffer();
}
