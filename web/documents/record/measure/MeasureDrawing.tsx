import type { DrawingId } from '@zugluft/core/record/howToMeasure';
import type { ReactNode } from 'react';

const AIR = 'var(--color-primary)';
const HEAT = 'var(--color-secondary)';

/** A length with its two ends and a word. */
function Span({
  x1,
  y1,
  x2,
  y2,
  word,
  dx = 0,
  dy = -3,
}: {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  word: string;
  dx?: number;
  dy?: number;
}) {
  const far = Math.hypot(x2 - x1, y2 - y1) || 1;
  const [nx, ny] = [(-(y2 - y1) / far) * 3, ((x2 - x1) / far) * 3];
  return (
    <g stroke={AIR} strokeWidth="1.2" fill="none">
      <path
        d={`M${x1} ${y1}L${x2} ${y2}M${x1 - nx} ${y1 - ny}L${x1 + nx} ${y1 + ny}M${x2 - nx} ${y2 - ny}L${x2 + nx} ${y2 + ny}`}
      />
      <text
        x={(x1 + x2) / 2 + dx}
        y={(y1 + y2) / 2 + dy}
        fontSize="10"
        textAnchor="middle"
        fill={AIR}
        stroke="none"
      >
        {word}
      </text>
    </g>
  );
}

const many = (n: number, draw: (i: number) => ReactNode) =>
  Array.from({ length: n }, (_, i) => draw(i));

const PICTURES: Record<DrawingId, { words: string; picture: ReactNode }> = {
  'fin-pitch': {
    words: 'Fins from the side of the fan: pitch from one fin to the next, depth along the air.',
    picture: (
      <>
        {many(9, (i) => (
          <path key={i} d={`M${30 + 10 * i} 26l24 -14v34l-24 14z`} />
        ))}
        <Span x1={30} y1={66} x2={40} y2={66} word="pitch" dy={12} />
        <Span x1={112} y1={62} x2={136} y2={48} word="depth" dx={16} dy={10} />
      </>
    ),
  },
  stack: {
    words: 'A stack from the fan: width over all fins, height of a fin without the pipe.',
    picture: (
      <>
        <rect x="30" y="16" width="104" height="8" rx="4" stroke={HEAT} />
        {many(18, (i) => (
          <path key={i} d={`M${34 + 5.6 * i} 24v32`} />
        ))}
        <Span x1={34} y1={68} x2={130} y2={68} word="width" dy={11} />
        <Span x1={22} y1={24} x2={22} y2={56} word="height" dx={-8} dy={-20} />
      </>
    ),
  },
  'pressed-pipe': {
    words:
      'A pipe cut across: round before, pressed after; thickness across the flat, width along it.',
    picture: (
      <>
        <circle cx="40" cy="40" r="17" stroke={HEAT} />
        <Span x1={23} y1={68} x2={57} y2={68} word="diameter" dy={12} />
        <rect x="88" y="33" width="54" height="14" rx="7" stroke={HEAT} />
        <Span x1={88} y1={62} x2={142} y2={62} word="width" dy={12} />
        <Span x1={150} y1={33} x2={150} y2={47} word="thickness" dx={-14} dy={-12} />
      </>
    ),
  },
  impeller: {
    words: 'A fan from above and from the side: blade tip to blade tip, height of a blade alone.',
    picture: (
      <>
        <rect x="16" y="10" width="66" height="60" rx="6" strokeDasharray="3 2" />
        <circle cx="49" cy="40" r="24" />
        <circle cx="49" cy="40" r="9" />
        {many(9, (i) => {
          const a = (i * 2 * Math.PI) / 9;
          return (
            <path
              key={i}
              d={`M${49 + 9 * Math.cos(a)} ${40 + 9 * Math.sin(a)}L${49 + 24 * Math.cos(a + 0.4)} ${40 + 24 * Math.sin(a + 0.4)}`}
            />
          );
        })}
        <Span x1={25} y1={40} x2={73} y2={40} word="impeller" dy={-28} />
        <rect x="104" y="26" width="48" height="28" strokeDasharray="3 2" />
        <path d="M110 33v14M120 33v14M136 33v14M146 33v14M110 47h36" />
        <Span x1={158} y1={33} x2={158} y2={47} word="blade" dx={-4} dy={-12} />
      </>
    ),
  },
  'open-share': {
    words: 'Open share: width of a slot over its pitch; area of a hole over that of its cell.',
    picture: (
      <>
        {many(7, (i) => (
          <rect key={i} x={16 + 9 * i} y="16" width="5" height="44" rx="2" />
        ))}
        <Span x1={16} y1={70} x2={21} y2={70} word="" />
        <Span x1={34} y1={70} x2={43} y2={70} word="pitch" dx={14} dy={4} />
        {many(12, (i) => (
          <circle key={i} cx={100 + 16 * (i % 4)} cy={24 + 16 * Math.floor(i / 4)} r="5" />
        ))}
        <rect x="108" y="32" width="16" height="16" stroke={AIR} />
        <text x="124" y="74" fontSize="10" textAnchor="middle" fill={AIR} stroke="none">
          cell
        </text>
      </>
    ),
  },
  vent: {
    words: 'A vent: the field of holes through which light comes, its longer and its shorter side.',
    picture: (
      <>
        <rect x="30" y="18" width="104" height="36" strokeDasharray="3 2" />
        {many(15, (i) => (
          <rect key={i} x={36 + 6.4 * i} y="22" width="3.4" height="28" rx="1.6" />
        ))}
        <Span x1={30} y1={64} x2={134} y2={64} word="width" dy={12} />
        <Span x1={144} y1={18} x2={144} y2={54} word="length" dx={10} dy={-22} />
      </>
    ),
  },
  foot: {
    words: 'From the table to the base beside a foot, with the machine’s own weight on it.',
    picture: (
      <>
        <path d="M10 62h150" />
        <path d="M22 28h126v20H22z" />
        <path d="M36 48h18l-3 14H39zM116 48h18l-3 14h-12z" />
        <Span x1={70} y1={48} x2={70} y2={62} word="height" dx={20} dy={3} />
        <text x="85" y="41" fontSize="10" textAnchor="middle" fill="currentColor" stroke="none">
          base
        </text>
      </>
    ),
  },
  'bond-line': {
    words: 'Die, interface material and plate in section: the bond line is what lies between them.',
    picture: (
      <>
        <rect x="20" y="14" width="130" height="18" />
        <rect x="56" y="32" width="58" height="6" fill={HEAT} fillOpacity="0.5" stroke="none" />
        <rect x="56" y="38" width="58" height="12" />
        <path d="M30 50h110v8H30z" />
        <Span x1={126} y1={32} x2={126} y2={38} word="bond line" dx={22} dy={10} />
        <text x="85" y="27" fontSize="10" textAnchor="middle" fill="currentColor" stroke="none">
          plate
        </text>
        <text x="85" y="48" fontSize="9" textAnchor="middle" fill="currentColor" stroke="none">
          die
        </text>
      </>
    ),
  },
  die: {
    words: 'The bare silicon in the middle of its carrier: width across, length front to rear.',
    picture: (
      <>
        <rect x="44" y="8" width="76" height="62" strokeDasharray="3 2" />
        <rect x="66" y="22" width="32" height="34" fill="currentColor" fillOpacity="0.15" />
        <Span x1={66} y1={16} x2={98} y2={16} word="width" dx={30} dy={4} />
        <Span x1={106} y1={22} x2={106} y2={56} word="length" dx={24} dy={4} />
      </>
    ),
  },
  microphone: {
    words:
      'The microphone before the machine at ear height; the distance from the middle of its front edge.',
    picture: (
      <>
        <path d="M10 66h150" />
        <path d="M28 60h58l-4 -4H28zM28 56L20 22" />
        <circle cx="140" cy="26" r="5" />
        <path d="M140 31v35" />
        <Span x1={86} y1={57} x2={136} y2={28} word="distance" dx={-18} dy={-6} />
      </>
    ),
  },
  sensor: {
    words: 'A die with its hottest spot: a sensor tells the spot, or a mean over the die.',
    picture: (
      <>
        <rect x="40" y="14" width="84" height="50" />
        <circle cx="98" cy="34" r="15" stroke={HEAT} strokeDasharray="2 2" />
        <circle cx="98" cy="34" r="8" stroke={HEAT} />
        <circle cx="98" cy="34" r="2.5" fill={HEAT} stroke="none" />
        <text x="62" y="58" fontSize="10" textAnchor="middle" fill={AIR} stroke="none">
          average
        </text>
        <text x="142" y="26" fontSize="10" textAnchor="middle" fill={HEAT} stroke="none">
          hot spot
        </text>
      </>
    ),
  },
  'along-pipe': {
    words:
      'Along the pipe’s middle, end to end, through its bends: stack, plate, plate, stack in order.',
    picture: (
      <>
        <path
          d="M14 24H52q14 0 18 12t18 12h66"
          stroke={HEAT}
          strokeWidth="5"
          strokeLinecap="round"
        />
        <rect x="16" y="14" width="26" height="20" />
        {many(5, (i) => (
          <path key={i} d={`M${20 + 4.5 * i} 14v20`} />
        ))}
        <rect x="82" y="40" width="18" height="18" />
        <rect x="108" y="40" width="18" height="18" />
        <path d="M14 70q70 6 140 0" stroke={AIR} strokeDasharray="3 2" />
        <text x="84" y="68" fontSize="10" textAnchor="middle" fill={AIR} stroke="none">
          length
        </text>
      </>
    ),
  },
};

/** Where a figure is taken, as a small line drawing. */
export function MeasureDrawing({ id }: { id: DrawingId }) {
  const { words, picture } = PICTURES[id];
  return (
    <figure className="m-0">
      <svg
        viewBox="0 0 170 82"
        className="w-full max-w-[17rem] min-w-[15rem]"
        role="img"
        aria-label={words}
        fill="none"
        stroke="currentColor"
        strokeWidth="1"
      >
        {picture}
      </svg>
    </figure>
  );
}
