import type { PhrasingContent, RootContent, Table } from 'mdast';
import PDFDocument from 'pdfkit';
import type { Report } from '@zugluft/core/report/report';
import type { Paper } from './formats';
import { faces, inFaces, type Face, type Faces } from './fonts';
import { drawChart } from './pdfChart';

const MARGIN = 54;
const TEXT = 10;
const HEADINGS: Readonly<Record<number, number>> = { 1: 20, 2: 13, 3: 11 };
const INK = '#14201b';
const QUIET = '#5c665f';
const RULE = '#cfd3c9';
const HEAT = '#b0400f';
const GAP = 6;
const CELL = 4;

interface Run {
  text: string;
  bold: boolean;
  italic: boolean;
}

interface Press {
  doc: PDFKit.PDFDocument;
  faces: Faces;
  left: number;
  width: number;
}

/**
 * A report as PDF: embedded faces, text that can be taken out again, charts as vectors, a number on each page.
 *
 * @param report from `reportOf`
 * @param options paper; the moment that is written into the file, fixed where it is to be the same whenever it is made
 */
export async function reportPdf(
  report: Report,
  options: { paper?: Paper; madeAt?: Date } = {},
): Promise<Buffer> {
  const doc = new PDFDocument({
    size: options.paper ?? 'A4',
    margins: { top: MARGIN, bottom: MARGIN, left: MARGIN, right: MARGIN },
    bufferPages: true,
    font: null as never,
    lang: 'en',
    displayTitle: true,
    info: { Title: report.name, Creator: 'Zugluft', CreationDate: options.madeAt ?? new Date(0) },
  });
  const chunks: Buffer[] = [];
  const whole = new Promise<Buffer>((resolve, reject) => {
    doc.on('data', (c: Buffer) => chunks.push(c));
    doc.on('end', () => resolve(Buffer.concat(chunks)));
    doc.on('error', reject);
  });
  const shipped = faces();
  for (const face of Object.values(shipped) as Face[]) doc.registerFont(face.name, face.bytes);
  const press: Press = { doc, faces: shipped, left: MARGIN, width: doc.page.width - 2 * MARGIN };
  doc.font(shipped.regular.name).fontSize(TEXT).fillColor(INK);
  for (const node of report.tree.children) put(press, node, report.charts);
  numberPages(press, report);
  doc.end();
  return whole;
}

function put(press: Press, node: RootContent, charts: Report['charts']): void {
  const { doc } = press;
  switch (node.type) {
    case 'heading': {
      const size = HEADINGS[node.depth] ?? TEXT;
      // a heading goes with the first lines of what follows
      room(press, size * 1.3 + GAP + 4 * TEXT);
      if (doc.y > MARGIN) doc.y += node.depth === 1 ? 0 : GAP * 1.5;
      write(press, bold(runsOf(node.children)), { size });
      doc.y += GAP / 2;
      return;
    }
    case 'paragraph': {
      const [only] = node.children;
      if (only?.type === 'image') {
        const chart = charts[only.url];
        if (!chart) return;
        const scale = Math.min(1, press.width / chart.width);
        room(press, chart.height * scale);
        const top = doc.y;
        drawChart(doc, press.faces, chart, press.left, top, scale);
        doc.y = top + chart.height * scale + GAP;
        return;
      }
      write(press, runsOf(node.children), {});
      doc.y += GAP;
      return;
    }
    case 'blockquote':
      for (const child of node.children) {
        const runs = 'children' in child ? runsOf(child.children as PhrasingContent[]) : [];
        room(press, heightOf(press, runs, press.width - 12, TEXT));
        const top = doc.y;
        write(press, runs, { inset: 12 });
        // where it went on to another page the bar stands there alone
        const from = doc.y >= top ? top : MARGIN;
        doc
          .moveTo(press.left + 2, from)
          .lineTo(press.left + 2, doc.y)
          .lineWidth(2)
          .stroke(HEAT);
        doc.y += GAP;
      }
      return;
    case 'list':
      node.children.forEach((item, i) => {
        const mark = node.ordered ? `${i + 1}. ` : '– ';
        const runs = item.children.flatMap((c) =>
          'children' in c ? runsOf(c.children as PhrasingContent[]) : [],
        );
        write(press, [{ text: mark, bold: false, italic: false }, ...runs], { inset: 8 });
        doc.y += 2;
      });
      doc.y += GAP;
      return;
    case 'table':
      putTable(press, node);
      doc.y += GAP;
      return;
    case 'thematicBreak':
      doc.y += GAP;
      return;
    default:
      if ('children' in node) write(press, runsOf(node.children as PhrasingContent[]), {});
      else if ('value' in node && node.type !== 'html') {
        write(press, [{ text: node.value, bold: false, italic: false }], {});
      }
  }
}

/** Begins another page where so much no longer fits on this one, and would on an empty one. */
function room({ doc }: Press, height: number): void {
  const bottom = doc.page.height - MARGIN;
  if (doc.y + height > bottom && doc.y > MARGIN) doc.addPage();
}

function runsOf(nodes: readonly PhrasingContent[], style = { bold: false, italic: false }): Run[] {
  return nodes.flatMap((n): Run[] => {
    if (n.type === 'text' || n.type === 'inlineCode') return [{ text: n.value, ...style }];
    if (n.type === 'break') return [{ text: '\n', ...style }];
    if (n.type === 'strong') return runsOf(n.children, { ...style, bold: true });
    if (n.type === 'emphasis') return runsOf(n.children, { ...style, italic: true });
    return 'children' in n ? runsOf(n.children, style) : [];
  });
}

const bold = (runs: readonly Run[]): Run[] => runs.map((r) => ({ ...r, bold: true }));

function piecesOf({ faces: f }: Press, runs: readonly Run[]): { face: Face; text: string }[] {
  return runs.flatMap((r) =>
    inFaces(
      r.text,
      r.bold ? f.bold : r.italic ? f.italic : f.regular,
      r.bold ? f.wideBold : f.wide,
    ),
  );
}

interface Setting {
  size?: number;
  inset?: number;
  width?: number;
  x?: number;
  align?: 'left' | 'right';
}

function write(press: Press, runs: readonly Run[], setting: Setting): void {
  const { doc } = press;
  const { size = TEXT, inset = 0, align = 'left' } = setting;
  const x = setting.x ?? press.left + inset;
  const width = setting.width ?? press.width - inset;
  const pieces = piecesOf(press, runs);
  if (pieces.length === 0) return;
  doc.fontSize(size).fillColor(INK);
  pieces.forEach(({ face, text }, i) => {
    doc.font(face.name);
    const options = { width, align, lineGap: 1.5, continued: i < pieces.length - 1 };
    if (i === 0) doc.text(text, x, doc.y, options);
    else doc.text(text, options);
  });
}

/** Height of a text that is set in a width, at most: faces of one size differ in their lines. */
function heightOf(press: Press, runs: readonly Run[], width: number, size: number): number {
  const { doc } = press;
  const pieces = piecesOf(press, runs);
  const text = pieces.map((p) => p.text).join('');
  if (!text) return 0;
  doc.fontSize(size);
  return Math.max(
    ...[...new Set(pieces.map((p) => p.face.name))].map((name) =>
      doc.font(name).heightOfString(text, { width, lineGap: 1.5 }),
    ),
  );
}

function putTable(press: Press, table: Table): void {
  const { doc } = press;
  const rows = table.children.map((r) => r.children.map((c) => runsOf(c.children)));
  const widths = columnWidths(press, rows);
  const align = (i: number) => (table.align?.[i] === 'right' ? 'right' : 'left');
  const putRow = (cells: readonly Run[][], isHead: boolean) => {
    const set = cells.map((runs) => (isHead ? bold(runs) : runs));
    const height =
      Math.max(TEXT, ...set.map((runs, i) => heightOf(press, runs, widths[i]! - 2 * CELL, TEXT))) +
      2 * CELL;
    const most = doc.page.height - 2 * MARGIN;
    if (doc.y + height > doc.page.height - MARGIN && doc.y > MARGIN) {
      doc.addPage();
      if (!isHead && height < most / 2) putRow(rows[0]!, true);
    }
    const top = doc.y;
    let x = press.left;
    let bottom = top + height;
    const page = doc.page;
    set.forEach((runs, i) => {
      if (doc.page === page) doc.y = top + CELL;
      write(press, runs, { x: x + CELL, width: widths[i]! - 2 * CELL, align: align(i) });
      // a cell longer than a page went on to others
      if (doc.page !== page) bottom = doc.y + CELL;
      x += widths[i]!;
    });
    doc
      .moveTo(press.left, bottom)
      .lineTo(press.left + press.width, bottom)
      .lineWidth(0.6)
      .stroke(RULE);
    doc.y = bottom;
  };
  rows.forEach((cells, i) => putRow(cells, i === 0));
}

/** Columns as wide as their longest cell where all fit, else the wide ones share what the narrow ones leave. */
function columnWidths(press: Press, rows: readonly Run[][][]): number[] {
  const { doc } = press;
  doc.fontSize(TEXT);
  const widest = rows[0]!
    .map((_, i) =>
      Math.max(
        ...rows.map((cells) =>
          piecesOf(press, bold(cells[i] ?? [])).reduce(
            (sum, { face, text }) => sum + doc.font(face.name).widthOfString(text.slice(0, 400)),
            0,
          ),
        ),
      ),
    )
    .map((w) => w + 2 * CELL + 1);
  let left = press.width;
  const out = new Array<number>(widest.length).fill(0);
  const order = widest.map((w, i) => ({ w, i })).sort((a, b) => a.w - b.w);
  order.forEach(({ w, i }, k) => {
    const share = left / (order.length - k);
    out[i] = k === order.length - 1 ? left : Math.min(w, share);
    left -= out[i]!;
  });
  return out;
}

function numberPages(press: Press, { name }: Report): void {
  const { doc } = press;
  const { start, count } = doc.bufferedPageRange();
  for (let i = start; i < start + count; i++) {
    doc.switchToPage(i);
    // below the margin, where text would begin another page
    doc.page.margins.bottom = 0;
    doc.fontSize(8).fillColor(QUIET);
    const y = doc.page.height - MARGIN / 2 - 8;
    doc.font(press.faces.regular.name);
    doc.text(`${i + 1} of ${count}`, press.left, y, {
      width: press.width,
      align: 'right',
      lineBreak: false,
    });
    let x = press.left;
    for (const { face, text } of inFaces(
      [...name].slice(0, 60).join(''),
      press.faces.regular,
      press.faces.wide,
    )) {
      doc.font(face.name).text(text, x, y, { lineBreak: false });
      x += doc.widthOfString(text);
    }
  }
}
