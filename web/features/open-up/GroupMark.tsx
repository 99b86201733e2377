/** A shape for each group, so that groups are told apart without their shade; the letter stands in it. */
const SHAPES = [
  'M-6 0A6 6 0 1 1 6 0A6 6 0 1 1 -6 0Z',
  'M-5.5 -5.5H5.5V5.5H-5.5Z',
  'M0 -7L7 5H-7Z',
  'M0 -7.5L7.5 0L0 7.5L-7.5 0Z',
  'M-3.5 -6H3.5L7 0L3.5 6H-3.5L-7 0Z',
  'M0 -7L6.7 -2.2L4.1 5.7H-4.1L-6.7 -2.2Z',
];

/** Size of the letter in a mark that is not enlarged. */
export const MARK_WORDS_MM = 8;

/** The mark of a group at a place of the map: filled where its screw is in, open where it is out, crossed where it was missing. */
export function GroupMark({
  index,
  letter,
  state,
  size = 1,
}: {
  index: number;
  letter: string;
  state: 'expected' | 'in' | 'out' | 'back' | 'missing' | 'lost';
  size?: number;
}) {
  const shade = 0.25 + (0.65 * (index % 4)) / 3;
  const open = state === 'expected' || state === 'out' || state === 'missing' || state === 'lost';
  return (
    <g transform={`scale(${size})`}>
      <path
        d={SHAPES[index % SHAPES.length]}
        fill={open ? 'var(--color-base-100)' : 'currentColor'}
        fillOpacity={open ? 1 : shade}
        stroke={state === 'missing' || state === 'lost' ? 'var(--color-secondary)' : 'currentColor'}
        strokeWidth={state === 'back' ? 2 : 1}
        strokeDasharray={open && state !== 'expected' ? '2 1.5' : undefined}
      />
      {(state === 'missing' || state === 'lost') && (
        <path d="M-8 -8L8 8M8 -8L-8 8" stroke="var(--color-secondary)" strokeWidth="1.2" />
      )}
      <text
        fontSize={MARK_WORDS_MM}
        textAnchor="middle"
        dominantBaseline="central"
        fill={!open && shade > 0.55 ? 'var(--color-base-100)' : 'currentColor'}
      >
        {letter}
      </text>
    </g>
  );
}
