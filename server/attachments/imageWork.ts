import { focalOfExif } from '@zugluft/core/photo/focalOfExif';
import exifReader from 'exif-reader';
import { availableParallelism } from 'node:os';
import {
  MAX_MEGAPIXELS,
  MAX_SIDE_PX,
  type AttachmentType,
  type Cover,
} from '@zugluft/core/library/attachment';
import sharp, { type Sharp } from 'sharp';
import { Problem } from '../security/problem';

/** Ink of the boxes that hide, whatever the theme. */
const INK = '#14201b';
const THUMB_PX = 360;
const JPEG_QUALITY = 92;
/** A picture that takes longer is given up. */
const MOST_SECONDS = 120;
// one core is left for requests
sharp.concurrency(Math.max(1, availableParallelism() - 1));
sharp.cache(false);

const startsWith = (bytes: Uint8Array, text: string, at = 0) =>
  Buffer.from(bytes.buffer, bytes.byteOffset + at, Math.min(text.length, bytes.length - at))
    .toString('latin1')
    .startsWith(text);

/** What a file is, by its first bytes; null where it is none of the kinds that are taken. */
export function typeByContent(bytes: Uint8Array): AttachmentType | null {
  if (bytes.length < 12) return null;
  if (startsWith(bytes, '\xff\xd8\xff')) return 'image/jpeg';
  if (startsWith(bytes, '\x89PNG\r\n\x1a\n')) return 'image/png';
  if (startsWith(bytes, 'RIFF') && startsWith(bytes, 'WEBP', 8)) return 'image/webp';
  if (startsWith(bytes, '%PDF-')) return 'application/pdf';
  return null;
}

/** What the camera wrote beside the picture; a broken block says nothing and is dropped with the rest. */
function readExif(exif: Buffer | undefined): ReturnType<typeof exifReader> | null {
  try {
    return exif ? exifReader(exif) : null;
  } catch {
    return null;
  }
}

/** When the camera took it, by its own clock; null where it does not say. */
function takenAt(exif: ReturnType<typeof exifReader> | null): string | null {
  const at = exif?.Photo?.DateTimeOriginal ?? exif?.Image?.DateTime;
  return at instanceof Date && !Number.isNaN(at.getTime()) ? at.toISOString().slice(0, 19) : null;
}

const refused = (why: string) => new Problem(422, 'No picture', why);

/** JPEG above that many pixels is coded in one go: to look for the shortest codes first takes six bytes for each. */
const LOOKED_THROUGH_PX = 16e6;

function asFile(image: Sharp, type: AttachmentType, pixels: number): Sharp {
  if (type === 'image/png') return image.png();
  if (type === 'image/webp') return image.webp({ quality: JPEG_QUALITY });
  return image.jpeg({
    quality: JPEG_QUALITY,
    chromaSubsampling: '4:4:4',
    optimizeCoding: pixels <= LOOKED_THROUGH_PX,
  });
}

export interface CleanPhoto {
  bytes: Buffer;
  widthPx: number;
  heightPx: number;
  takenAt: string | null;
  /** Focal length in pixels, as the camera wrote it: what is measured in the photo needs it. */
  focalPx: number | null;
}

/**
 * A photo as it is kept: upright, in the colours every screen shows, and without anything the camera wrote beside the picture
 * (place, serial number of the camera, preview). It is written anew, since only that drops all of it for certain.
 *
 * @throws Problem 422 where it cannot be read or has too many pixels
 */
export async function cleanPhoto(bytes: Uint8Array, type: AttachmentType): Promise<CleanPhoto> {
  let known: Awaited<ReturnType<Sharp['metadata']>>;
  try {
    known = await sharp(bytes, { limitInputPixels: false }).metadata();
  } catch {
    throw refused('the picture is broken and cannot be read');
  }
  if (Math.max(known.width, known.height) > MAX_SIDE_PX) {
    throw refused(
      `the picture is ${known.width} × ${known.height} px; at most ${MAX_SIDE_PX} a side are taken`,
    );
  }
  const megapixels = (known.width * known.height) / 1e6;
  if (megapixels > MAX_MEGAPIXELS) {
    throw refused(
      `the picture has ${Math.round(megapixels)} megapixels; at most ${MAX_MEGAPIXELS} are taken`,
    );
  }
  try {
    const image = sharp(bytes, { limitInputPixels: MAX_MEGAPIXELS * 1e6, failOn: 'error' });
    const { data, info } = await asFile(image.rotate(), type, megapixels * 1e6)
      .timeout({ seconds: MOST_SECONDS })
      .toBuffer({ resolveWithObject: true });
    const exif = readExif(known.exif);
    return {
      bytes: data,
      widthPx: info.width,
      heightPx: info.height,
      takenAt: takenAt(exif),
      focalPx: focalOfExif(exif?.Photo, [info.width, info.height]),
    };
  } catch {
    throw refused('the picture is broken and cannot be read');
  }
}

/** A photo with its boxes burned in: what lies under them is gone from the file. */
export async function burnCovers(
  bytes: Uint8Array,
  type: AttachmentType,
  covers: readonly Cover[],
): Promise<Buffer> {
  if (!covers.length) return Buffer.from(bytes);
  const size = await sizeOf(bytes);
  const picture = asFile(covered(bytes, size, covers), type, size[0] * size[1]);
  return picture.timeout({ seconds: MOST_SECONDS }).toBuffer();
}

/** A small picture of a photo, its boxes burned in. */
export async function thumbnail(
  bytes: Uint8Array,
  covers: readonly Cover[],
  px = THUMB_PX,
): Promise<Buffer> {
  const full = covered(bytes, await sizeOf(bytes), covers);
  const small = (image: Sharp) =>
    image
      .resize(px, px, { fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 80 })
      .timeout({ seconds: MOST_SECONDS })
      .toBuffer();
  if (!covers.length) return small(full);
  // composed first, made smaller after: in one go it would be the other way round. As plain pixels: packing them takes longest
  const { data, info } = await full
    .raw()
    .timeout({ seconds: MOST_SECONDS })
    .toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  return small(sharp(data, { raw: { width, height, channels } }));
}

async function sizeOf(bytes: Uint8Array): Promise<[number, number]> {
  const { width, height } = await sharp(bytes).metadata();
  return [width, height];
}

function covered(bytes: Uint8Array, [w, h]: [number, number], covers: readonly Cover[]): Sharp {
  const image = sharp(bytes);
  if (!covers.length) return image;
  return image.composite(
    covers.map(([x, y, cw, ch]) => {
      // outwards to whole pixels, and over the edge by none
      const left = Math.min(w - 1, Math.floor(x * w));
      const top = Math.min(h - 1, Math.floor(y * h));
      const width = Math.max(1, Math.min(w, Math.ceil((x + cw) * w)) - left);
      const height = Math.max(1, Math.min(h, Math.ceil((y + ch) * h)) - top);
      return {
        input: { create: { width, height, channels: 3 as const, background: INK } },
        left,
        top,
      };
    }),
  );
}
