import type { Element } from 'hast';
import { plainLine } from '../exchange/tree';
import type { Chart, Mark, Point } from './chart';

const n = (x: number): string => String(Math.round(x * 100) / 100);
const path = (points: readonly Point[]): string =>
  points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${n(x)} ${n(y)}`).join('');

/** Faces of a drawing: the one that is shipped, else what a machine has. */
export const FACES = "'Hanken Grotesk', 'DejaVu Sans', system-ui, sans-serif";

const element = (
  tagName: string,
  properties: Element['properties'],
  ...children: Element['children']
): Element => ({ type: 'element', tagName, properties, children });

function elementOf(mark: Mark): Element {
  switch (mark.kind) {
    case 'line':
      return element('path', {
        d: path(mark.points),
        fill: 'none',
        stroke: mark.colour,
        strokeWidth: n(mark.width),
        strokeLineJoin: 'round',
        ...(mark.dash ? { strokeDashArray: mark.dash.map(n) } : {}),
      });
    case 'area':
      return element('path', { d: `${path(mark.points)}Z`, fill: mark.colour });
    case 'diamond':
      return element('path', { d: `${path(cornersOf(mark.at, mark.size))}Z`, fill: mark.colour });
    case 'text':
      return element(
        'text',
        {
          x: n(mark.at[0]),
          y: n(mark.at[1]),
          fontSize: n(mark.size),
          fill: mark.colour,
          textAnchor: mark.anchor,
          ...(mark.bold ? { fontWeight: '600' } : {}),
        },
        { type: 'text', value: plainLine(mark.text) },
      );
  }
}

/** Corners of a diamond about a point. */
export const cornersOf = ([x, y]: Point, size: number): Point[] => [
  [x, y - size],
  [x + size, y],
  [x, y + size],
  [x - size, y],
];

/**
 * A drawing as an SVG element (hast), which every page can hold and no text of which can be taken for markup.
 *
 * @param background a colour behind it, for a file of its own
 */
export function chartTree(chart: Chart, background?: string): Element {
  const { width, height, alt, marks } = chart;
  return element(
    'svg',
    {
      xmlns: 'http://www.w3.org/2000/svg',
      viewBox: `0 0 ${n(width)} ${n(height)}`,
      width: n(width),
      height: n(height),
      role: 'img',
      ariaLabel: plainLine(alt),
      fontFamily: FACES,
    },
    ...(background === undefined
      ? []
      : [element('rect', { width: n(width), height: n(height), fill: background })]),
    ...marks.map(elementOf),
  );
}
