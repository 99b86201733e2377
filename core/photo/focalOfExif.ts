/** Diagonal of the film that equivalent focal lengths are told for, mm. Source: CIPA DCG-001. */
const FILM_DIAGONAL_MM = 43.27;
const MM_OF_UNIT: Record<number, number> = { 2: 25.4, 3: 10 };

/** What a camera writes of its lens, by the names of the EXIF standard. */
export interface ExifOfLens {
  FocalLengthIn35mmFilm?: unknown;
  FocalLength?: unknown;
  FocalPlaneXResolution?: unknown;
  FocalPlaneResolutionUnit?: unknown;
  PixelXDimension?: unknown;
}

/**
 * Focal length in pixels, as the camera wrote it: from that for film, else from its own and the pixels of its sensor.
 *
 * @param exif null where there is none
 * @param size of the picture, px
 * @returns null where it is not told
 * Source: CIPA DC-008 (Exif), tags 41486, 41488, 41989; from memory.
 */
export function focalOfExif(
  exif: ExifOfLens | null | undefined,
  [width, height]: readonly [number, number],
): number | null {
  if (!exif) return null;
  const film = Number(exif.FocalLengthIn35mmFilm);
  if (film > 0) return (film / FILM_DIAGONAL_MM) * Math.hypot(width, height);
  const mm = Number(exif.FocalLength);
  const resolution = Number(exif.FocalPlaneXResolution);
  const unit = MM_OF_UNIT[Number(exif.FocalPlaneResolutionUnit ?? 2)];
  const long = Math.max(width, height);
  const full = Number(exif.PixelXDimension ?? long);
  if (!(mm > 0) || !(resolution > 0) || !unit || !(full > 0)) return null;
  // what it wrote is of all its pixels; the file may have fewer
  return ((mm * resolution) / unit) * (long / full);
}
