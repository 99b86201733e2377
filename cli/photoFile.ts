import { stat } from 'node:fs/promises';
import { MAX_MEGAPIXELS } from '@zugluft/core/library/attachment';
import { pictureOf, type Picture } from '@zugluft/core/photo/picture';
import { focalOfExif } from '@zugluft/core/photo/focalOfExif';
import type { Lens } from '@zugluft/core/photo/fitScale';
import exifReader from 'exif-reader';
import sharp, { type Metadata } from 'sharp';
import { BadInput } from './badInput';

/** A file larger than this is refused before it is read. */
const LARGEST_PHOTO = 200_000_000;

/**
 * A photo as it is displayed: turned by its EXIF flag, what is transparent before white, in light.
 *
 * @throws BadInput at `photo` where it cannot be read
 */
export async function photoOfFile(file: string): Promise<{ picture: Picture; lens: Lens }> {
  const bad = (message: string) => new BadInput('photo', message);
  let size: number;
  try {
    size = (await stat(file)).size;
  } catch (cause) {
    throw bad(`cannot read ${file}: ${(cause as NodeJS.ErrnoException).code ?? 'failed'}`);
  }
  if (size > LARGEST_PHOTO) throw bad('the file is larger than 200 MB');
  const broken = () => bad(`${file} is no picture, or a broken one`);
  let known: Metadata;
  try {
    known = await sharp(file, { limitInputPixels: false }).metadata();
  } catch {
    throw broken();
  }
  const megapixels = (known.width * known.height) / 1e6;
  if (megapixels > MAX_MEGAPIXELS) {
    throw bad(
      `the picture has ${Math.round(megapixels)} megapixels; at most ${MAX_MEGAPIXELS} are taken`,
    );
  }
  const is16 = known.depth === 'ushort';
  try {
    const { data, info } = await sharp(file, { limitInputPixels: false, failOn: 'error' })
      .rotate()
      .flatten({ background: '#ffffff' })
      .toColourspace(is16 ? 'rgb16' : 'srgb')
      .raw({ depth: is16 ? 'ushort' : 'uchar' })
      .toBuffer({ resolveWithObject: true });
    if (info.channels !== 3) throw broken();
    const values = is16 ? new Uint16Array(data.buffer, data.byteOffset, data.length / 2) : data;
    return {
      picture: pictureOf(values, info.width, info.height),
      lens: { focalPx: focalPx(known.exif, [info.width, info.height]) },
    };
  } catch (cause) {
    if (cause instanceof BadInput) throw cause;
    throw broken();
  }
}

/** Focal length in pixels, as the camera wrote it; null where it did not, or wrote it broken. */
function focalPx(exif: Buffer | undefined, size: readonly [number, number]): number | null {
  try {
    return exif ? focalOfExif(exifReader(exif).Photo, size) : null;
  } catch {
    return null;
  }
}
