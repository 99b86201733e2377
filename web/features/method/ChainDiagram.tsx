import { METHOD } from '@zugluft/core/method/equations';

/** Nodes of the chain from die to room, left to right; each leads to its chapter. */
const MAIN: [string, string][] = [
  ['Die', 'dies'],
  ['Interface', 'dies'],
  ['Plate', 'dies'],
  ['Heat pipe', 'pipes'],
  ['Fins', 'fins'],
  ['Air', 'airflow'],
  ['Room', 'air'],
];
const STEP = 132;
const BOX = 96;

/** The chain as a diagram: the main way above, the weak one through the shell below. */
export function ChainDiagram() {
  const title = (id: string) => METHOD.find((c) => c.id === id)?.title ?? id;
  const width = STEP * (MAIN.length - 1) + BOX;
  const box = (x: number, y: number, name: string, id: string) => (
    <a href={`#${id}`} aria-label={`${name}: to chapter ${title(id)}`} key={`${name}-${y}`}>
      <rect
        x={x}
        y={y}
        width={BOX}
        height="30"
        fill="var(--color-base-100)"
        stroke="currentColor"
        rx="2"
      />
      <text x={x + BOX / 2} y={y + 20} textAnchor="middle" fontSize="15" fill="currentColor">
        {name}
      </text>
    </a>
  );
  return (
    <svg
      viewBox={`-2 -4 ${width + 4} 128`}
      className="w-full max-w-[56rem] min-w-[54rem]"
      role="group"
      aria-label="the chain from die to room"
    >
      {MAIN.slice(1).map(([name], i) => (
        <line
          key={name}
          x1={i * STEP + BOX}
          x2={(i + 1) * STEP}
          y1="15"
          y2="15"
          stroke={i < 4 ? 'var(--color-heat)' : 'var(--color-air)'}
          strokeWidth="4"
        />
      ))}
      <path
        d={`M${2 * STEP + BOX / 2} 30 V 106 H ${3 * STEP} M${3 * STEP + BOX} 106 H ${6 * STEP + BOX / 2} V 30`}
        fill="none"
        stroke="var(--color-heat)"
        strokeWidth="1.5"
        strokeDasharray="5 4"
      />
      <path
        d={`M${5 * STEP + BOX / 2} 56 V 30`}
        fill="none"
        stroke="var(--color-air)"
        strokeWidth="2"
      />
      <path
        d={`M${4 * STEP + BOX} 71 H ${5 * STEP}`}
        fill="none"
        stroke="currentColor"
        strokeWidth="1"
      />
      {MAIN.map(([name, id], i) => box(i * STEP, 0, name, id))}
      {box(3 * STEP, 91, 'Shell, skin', 'shell')}
      {box(5 * STEP, 56, 'Fans, vents', 'airflow')}
      {box(4 * STEP, 56, 'Noise cap', 'noise')}
    </svg>
  );
}
