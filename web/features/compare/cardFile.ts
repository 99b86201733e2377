import { toJsxRuntime } from 'hast-util-to-jsx-runtime';
import { flushSync } from 'react-dom';
import { createRoot } from 'react-dom/client';
import { Fragment, jsx, jsxs } from 'react/jsx-runtime';
import fontUrl from '@fontsource-variable/hanken-grotesk/files/hanken-grotesk-latin-wght-normal.woff2?url';
import type { Chart } from '@zugluft/core/report/chart';
import { chartTree } from '@zugluft/core/report/chartTree';

const PAPER = '#ffffff';

/** The face of the drawing within it: a picture loads none from elsewhere. */
async function faceStyle(): Promise<string> {
  const bytes = await (await fetch(fontUrl)).blob();
  const data = await new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(reader.error ?? new Error('the face could not be read'));
    reader.readAsDataURL(bytes);
  });
  return `@font-face{font-family:'Hanken Grotesk';font-weight:100 900;src:url(${data}) format('woff2')}`;
}

/** A drawing as an SVG file that needs nothing beside it. */
export async function svgOf(chart: Chart): Promise<Blob> {
  const tree = chartTree(chart, PAPER);
  const style = { type: 'text' as const, value: await faceStyle() };
  tree.children.unshift({ type: 'element', tagName: 'style', properties: {}, children: [style] });
  const holder = document.createElement('div');
  const root = createRoot(holder);
  flushSync(() => root.render(toJsxRuntime(tree, { Fragment, jsx, jsxs, space: 'svg' })));
  const text = new XMLSerializer().serializeToString(holder.firstElementChild!);
  root.unmount();
  return new Blob([text], { type: 'image/svg+xml' });
}

/** The same as a PNG of the drawing’s own size in pixels. */
export async function pngOf(chart: Chart): Promise<Blob> {
  const url = URL.createObjectURL(await svgOf(chart));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = chart.width;
    canvas.height = chart.height;
    canvas.getContext('2d')!.drawImage(image, 0, 0);
    return await new Promise((resolve, reject) =>
      canvas.toBlob(
        (png) => (png ? resolve(png) : reject(new Error('no picture came'))),
        'image/png',
      ),
    );
  } finally {
    URL.revokeObjectURL(url);
  }
}
