import { useState } from 'react';
import type { PointPx } from '@zugluft/core/photo/point';
import type { Attachment } from '../../api/attachments';
import { TILE_PX, tileUrl, viewUrl } from '../../api/measuring';
import { tilesIn, toPhoto, type PhotoView } from './photoView';

/** Longer side of the picture that fits a screen, px. */
const VIEW_PX = 2560;
/** Pixels of the photo are seen one by one from here on. */
const SQUARE_FROM = 3;

/** A photo in a pane: a picture that fits a screen, and pieces at full size over it where one looks closer than that. */
export function PhotoLayers({
  photo,
  view,
  pane,
  failed,
}: {
  photo: Attachment;
  view: PhotoView;
  pane: { width: number; height: number };
  /** Told where the photo cannot be had. */
  failed?: () => void;
}) {
  const [w, h] = [photo.widthPx!, photo.heightPx!];
  const own = Math.min(1, VIEW_PX / Math.max(w, h));
  const [x0, y0] = toPhoto(view, [0, 0]);
  const [x1, y1] = toPhoto(view, [pane.width, pane.height]);
  const tiles = view.zoom > own ? tilesIn([x0, y0, x1, y1], [w, h], TILE_PX) : [];
  return (
    <div
      className="absolute left-0 top-0 origin-top-left will-change-transform"
      style={{
        width: w,
        height: h,
        transform: `translate(${-view.left * view.zoom}px, ${-view.top * view.zoom}px) scale(${view.zoom})`,
        imageRendering: view.zoom >= SQUARE_FROM ? 'pixelated' : 'auto',
      }}
    >
      <img
        src={viewUrl(photo)}
        alt={photo.caption || photo.name}
        draggable={false}
        className="absolute inset-0 size-full max-w-none select-none"
        onError={failed}
      />
      {tiles.map(({ column, row }) => (
        <Tile
          key={`${column} ${row}`}
          src={tileUrl(photo, column, row)}
          column={column}
          row={row}
          size={[w, h]}
        />
      ))}
    </div>
  );
}

/** A piece; while it is on its way the picture under it is seen. */
function Tile({
  src,
  column,
  row,
  size: [w, h],
}: {
  src: string;
  column: number;
  row: number;
  size: readonly [number, number];
}) {
  const [there, setThere] = useState(false);
  const [left, top] = [column * TILE_PX, row * TILE_PX];
  return (
    <img
      src={src}
      alt=""
      draggable={false}
      decoding="async"
      className="absolute max-w-none select-none"
      onLoad={() => setThere(true)}
      style={{
        left,
        top,
        width: Math.min(TILE_PX, w - left),
        height: Math.min(TILE_PX, h - top),
        visibility: there ? 'visible' : 'hidden',
      }}
    />
  );
}

const LENS_PX = 148;
const LENS_ZOOM = 6;

/** What lies under the cursor, six times as large; in that upper corner where the cursor is not. */
export function Magnifier({
  photo,
  cursor,
  view,
  pane,
}: {
  photo: Attachment;
  cursor: PointPx;
  view: PhotoView;
  pane: { width: number; height: number };
}) {
  if (view.zoom >= LENS_ZOOM || pane.width < 2 * LENS_PX) return null;
  const half = LENS_PX / 2 / LENS_ZOOM;
  const lens = { zoom: LENS_ZOOM, left: cursor[0] - half, top: cursor[1] - half };
  const isRight = (cursor[0] - view.left) * view.zoom > pane.width / 2;
  return (
    <div
      className={`absolute top-2 ${isRight ? 'left-2' : 'right-2'} border border-ink rounded-sm overflow-hidden bg-base-200 pointer-events-none`}
      style={{ width: LENS_PX, height: LENS_PX }}
      aria-hidden
      data-magnifier
    >
      <PhotoLayers photo={photo} view={lens} pane={{ width: LENS_PX, height: LENS_PX }} />
      <svg className="absolute inset-0 size-full" aria-hidden>
        <path
          d={`M${LENS_PX / 2} 0V${LENS_PX}M0 ${LENS_PX / 2}H${LENS_PX}`}
          stroke="#fff"
          strokeWidth={3}
          opacity={0.5}
        />
        <path
          d={`M${LENS_PX / 2} 0V${LENS_PX}M0 ${LENS_PX / 2}H${LENS_PX}`}
          stroke="#14201b"
          strokeWidth={0.8}
        />
      </svg>
    </div>
  );
}
