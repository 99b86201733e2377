/** A mark at a part with which something is wrong; its words on hover. */
export function FaultMark({
  x,
  y,
  fontMm,
  words,
}: {
  x: number;
  y: number;
  fontMm: number;
  words: readonly string[];
}) {
  return (
    <g>
      <title>{words.join('; ')}</title>
      <circle
        cx={x}
        cy={y}
        r={0.7 * fontMm}
        fill="var(--color-base-100)"
        stroke="var(--color-secondary)"
        strokeWidth="1.4"
      />
      <text
        x={x}
        y={y + 0.35 * fontMm}
        fontSize={fontMm}
        fontWeight="700"
        textAnchor="middle"
        fill="var(--color-secondary)"
      >
        !
      </text>
    </g>
  );
}
