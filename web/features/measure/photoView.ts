import type { PointPx } from '@zugluft/core/photo/point';

/** What of a photo is shown: screen pixels for one of its pixels, and which of its places lies in the upper left corner. */
export interface PhotoView {
  zoom: number;
  left: number;
  top: number;
}

/** Screen pixels for one of the photo's, at most. */
export const MOST_ZOOM = 16;
const EDGE = 0.12;

/** The whole photo in a pane. */
export function fitted(
  [w, h]: readonly [number, number],
  pane: { width: number; height: number },
): PhotoView {
  const zoom = Math.min(pane.width / w, pane.height / h) || 1;
  return {
    zoom,
    left: (w - pane.width / zoom) / 2,
    top: (h - pane.height / zoom) / 2,
  };
}

export const toScreen = ({ zoom, left, top }: PhotoView, [x, y]: PointPx): [number, number] => [
  (x - left) * zoom,
  (y - top) * zoom,
];

export const toPhoto = ({ zoom, left, top }: PhotoView, [x, y]: PointPx): [number, number] => [
  left + x / zoom,
  top + y / zoom,
];

/** Nearer or farther, with a place of the pane staying where it is. */
export function zoomed(
  view: PhotoView,
  factor: number,
  at: PointPx,
  size: readonly [number, number],
  pane: { width: number; height: number },
): PhotoView {
  const least = fitted(size, pane).zoom;
  const zoom = Math.min(MOST_ZOOM, Math.max(least, view.zoom * factor));
  const [x, y] = toPhoto(view, at);
  return kept({ zoom, left: x - at[0] / zoom, top: y - at[1] / zoom }, size, pane);
}

/** Moved so that no more of the pane than it must lies beyond the photo. */
export function kept(
  { zoom, left, top }: PhotoView,
  [w, h]: readonly [number, number],
  pane: { width: number; height: number },
): PhotoView {
  const along = (at: number, all: number, shown: number) =>
    shown >= all ? (all - shown) / 2 : Math.min(all - shown, Math.max(0, at));
  return {
    zoom,
    left: along(left, w, pane.width / zoom),
    top: along(top, h, pane.height / zoom),
  };
}

/** Moved as far as a place has to be to be well in sight. */
export function follow(
  view: PhotoView,
  place: PointPx,
  size: readonly [number, number],
  pane: { width: number; height: number },
): PhotoView {
  const [x, y] = toScreen(view, place);
  const push = (at: number, all: number) =>
    at < EDGE * all ? at - EDGE * all : at > (1 - EDGE) * all ? at - (1 - EDGE) * all : 0;
  return kept(
    {
      zoom: view.zoom,
      left: view.left + push(x, pane.width) / view.zoom,
      top: view.top + push(y, pane.height) / view.zoom,
    },
    size,
    pane,
  );
}

/** Squares of a photo that a stretch of it touches. */
export function tilesIn(
  [x0, y0, x1, y1]: readonly [number, number, number, number],
  [w, h]: readonly [number, number],
  tilePx: number,
): { column: number; row: number }[] {
  const out: { column: number; row: number }[] = [];
  const last = (all: number, to: number) =>
    Math.min(Math.ceil(all / tilePx) - 1, Math.floor(to / tilePx));
  for (let row = Math.max(0, Math.floor(y0 / tilePx)); row <= last(h, y1); row++) {
    for (let column = Math.max(0, Math.floor(x0 / tilePx)); column <= last(w, x1); column++) {
      out.push({ column, row });
    }
  }
  return out;
}
