import type { Chart } from '@zugluft/core/report/chart';
import { cornersOf } from '@zugluft/core/report/chartTree';
import { plainLine } from '@zugluft/core/exchange/tree';
import { inFaces, type Faces } from './fonts';

/**
 * A drawing as vectors and text of a page.
 *
 * @param x upper left corner, and `y`, in points
 * @param scale points of the page for a point of the drawing
 */
export function drawChart(
  doc: PDFKit.PDFDocument,
  faces: Faces,
  chart: Chart,
  x: number,
  y: number,
  scale: number,
): void {
  doc.save().translate(x, y).scale(scale);
  for (const mark of chart.marks) {
    switch (mark.kind) {
      case 'line':
      case 'area':
      case 'diamond': {
        const points = mark.kind === 'diamond' ? cornersOf(mark.at, mark.size) : mark.points;
        points.forEach(([px, py], i) => (i === 0 ? doc.moveTo(px, py) : doc.lineTo(px, py)));
        if (mark.kind === 'line') {
          if (mark.dash) doc.dash(mark.dash[0]!, { space: mark.dash[1] ?? mark.dash[0]! });
          doc.lineWidth(mark.width).lineJoin('round').stroke(mark.colour);
          if (mark.dash) doc.undash();
        } else doc.closePath().fill(mark.colour);
        break;
      }
      case 'text': {
        const pieces = inFaces(
          plainLine(mark.text),
          mark.bold ? faces.bold : faces.regular,
          mark.bold ? faces.wideBold : faces.wide,
        );
        doc.fontSize(mark.size).fillColor(mark.colour);
        const widths = pieces.map((p) => doc.font(p.face.name).widthOfString(p.text));
        const whole = widths.reduce((a, b) => a + b, 0);
        let px =
          mark.at[0] - (mark.anchor === 'end' ? whole : mark.anchor === 'middle' ? whole / 2 : 0);
        pieces.forEach((p, i) => {
          doc
            .font(p.face.name)
            .text(p.text, px, mark.at[1], { lineBreak: false, baseline: 'alphabetic' });
          px += widths[i]!;
        });
        break;
      }
    }
  }
  doc.restore();
}
