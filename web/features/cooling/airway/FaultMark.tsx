/** A mark at a part with which something is wrong; its words on hover. */
export function FaultMark({ x, y, words }: { x: number; y: number; words: readonly string[] }) {
  return (
    <g>
      <title>{words.join('; ')}</title>
      <circle
        cx={x}
        cy={y}
        r="6"
        fill="var(--color-base-100)"
        stroke="var(--color-secondary)"
        strokeWidth="1.4"
      />
      <text
        x={x}
        y={y + 3}
        fontSize="9"
        fontWeight="700"
        textAnchor="middle"
        fill="var(--color-secondary)"
      >
        !
      </text>
    </g>
  );
}
