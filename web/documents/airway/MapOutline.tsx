/** The shell around the map, and how the machine lies. */
export function MapOutline({
  widthMm: w,
  bottomMm: bottom,
  cut,
  fontMm,
}: {
  widthMm: number;
  bottomMm: number;
  /** Part of the machine lies beyond the map. */
  cut: boolean;
  fontMm: number;
}) {
  return (
    <>
      <defs>
        <marker
          id="air-tip"
          viewBox="0 0 6 6"
          refX="4"
          refY="3"
          markerWidth="6"
          markerHeight="6"
          markerUnits="userSpaceOnUse"
          orient="auto"
        >
          <path d="M0 0 L6 3 L0 6" fill="none" stroke="var(--color-primary)" strokeWidth="1.2" />
        </marker>
      </defs>
      <path
        d={`M0 ${bottom} V6 Q0 0 6 0 H${w - 6} Q${w} 0 ${w} 6 V${bottom}`}
        fill="none"
        stroke="currentColor"
        strokeWidth="0.8"
      />
      <path
        d={`M0 ${bottom} H${w}`}
        stroke="currentColor"
        strokeWidth="0.6"
        strokeDasharray={cut ? '1 4' : undefined}
      />
      <g fontSize={fontMm} fill="currentColor" opacity="0.75">
        <text x="4" y={bottom - 4}>
          user’s right
        </text>
        <text x={w - 4} y={bottom - 4} textAnchor="end">
          user’s left
        </text>
        <text x={w / 2} y={-7} textAnchor="middle">
          rear
        </text>
      </g>
    </>
  );
}
