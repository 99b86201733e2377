/** Where a pointer is on a plan, in the plan's own measure; null while it is not drawn. */
export function planPoint(
  svg: SVGSVGElement | null,
  at: { clientX: number; clientY: number },
): { x: number; y: number } | null {
  const matrix = svg?.getScreenCTM();
  return matrix ? new DOMPoint(at.clientX, at.clientY).matrixTransform(matrix.inverse()) : null;
}
