import { useRef } from 'react';
import { pictureOf, type Picture } from '@zugluft/core/photo/picture';
import type { PointPx } from '@zugluft/core/photo/point';
import { snapToEdge } from '@zugluft/core/photo/snapToEdge';
import type { Attachment } from '../../api/attachments';
import { TILE_PX, tileUrl } from '../../api/measuring';
import { tilesIn } from './photoView';

const RADIUS_PX = 8;
/** Half of what is cut out around the place. */
const AROUND_PX = 16;

/** Finds the edge next to a place of a photo; of two that are asked for the newer one counts, the older one answers null. */
export function useSnap(photo: Attachment): (at: PointPx) => Promise<PointPx | null> {
  const asked = useRef(0);
  return async (at) => {
    const number = ++asked.current;
    const left = Math.max(0, Math.round(at[0]) - AROUND_PX);
    const top = Math.max(0, Math.round(at[1]) - AROUND_PX);
    const picture = await around(photo, left, top);
    if (number !== asked.current) return null;
    const [x, y] = snapToEdge(picture, [at[0] - left, at[1] - top], RADIUS_PX);
    return [x + left, y + top];
  };
}

/** The light of a small part of a photo. */
async function around(photo: Attachment, left: number, top: number): Promise<Picture> {
  const size = [photo.widthPx!, photo.heightPx!] as const;
  const width = Math.min(2 * AROUND_PX, size[0] - left);
  const height = Math.min(2 * AROUND_PX, size[1] - top);
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  const tiles = tilesIn([left, top, left + width, top + height], size, TILE_PX);
  await Promise.all(
    tiles.map(async ({ column, row }) => {
      const answer = await fetch(tileUrl(photo, column, row));
      if (!answer.ok) throw new Error(`the server answered ${answer.status}`);
      const image = await createImageBitmap(await answer.blob());
      context.drawImage(image, column * TILE_PX - left, row * TILE_PX - top);
      image.close();
    }),
  );
  const { data } = context.getImageData(0, 0, width, height);
  const rgb = new Uint8Array(width * height * 3);
  for (let i = 0, k = 0; i < data.length; i += 4, k += 3) {
    rgb[k] = data[i]!;
    rgb[k + 1] = data[i + 1]!;
    rgb[k + 2] = data[i + 2]!;
  }
  return pictureOf(rgb, width, height);
}
