import type { airwayFaults } from '@zugluft/core/airway/airwayFaults';
import { heatWays, waysOfPipe, type HeatWay } from '@zugluft/core/airway/heatWays';
import type { placeParts, PlacedPart } from '@zugluft/core/airway/placeParts';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { useRef, type KeyboardEvent } from 'react';
import { arrowStep } from '../../kit/plan/arrowStep';
import { useDrawnSize } from '../../kit/plan/useDrawnSize';
import { usePlanDrag } from '../../kit/plan/usePlanDrag';
import { airArrows } from './airArrows';
import { AirArrows } from './AirArrows';
import { HeatWords } from './HeatWords';
import { MapOutline } from './MapOutline';
import { PartShape } from './PartShape';
import { PipeLine } from './PipeLine';
import type { usePointAtCap } from './usePointAtCap';

const MARGIN = 16;
const STEP_MM = 2;
const WORDS_PX = 12;
const WORD: Record<PlacedPart['kind'], string> = {
  die: 'die',
  plate: 'plate',
  stack: 'fin stack',
  fan: 'fan',
  vent: 'vent',
};
const BELOW: readonly PlacedPart['kind'][] = ['plate', 'vent'];
const ABOVE: readonly PlacedPart['kind'][] = ['fan', 'stack', 'die'];

/** The plan itself: parts that are dragged or moved with the arrow keys, what flows between them. */
export function AirwayPlan({
  record,
  plan,
  point,
  faults,
  place,
  chosen,
  choose,
}: {
  record: CaseRecord;
  plan: ReturnType<typeof placeParts>;
  point: ReturnType<typeof usePointAtCap>;
  faults: ReturnType<typeof airwayFaults>;
  /** Puts a part elsewhere. */
  place: (id: string, xMm: number, yMm: number) => void;
  /** Name of the part in hand. */
  chosen: string | undefined;
  /** Takes a part in hand: its figures are opened. */
  choose: (list: PlacedPart['list'] | 'heatPipes', index: number) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const drawn = useDrawnSize(svg, true);
  const w = plan.widthMm;
  const lies = new Map(plan.parts.map((p) => [p.id, p]));
  // seen from below, the user's left is on the right
  const drag = usePlanDrag(
    svg,
    (id, dx, dy) => {
      const p = lies.get(id);
      if (p) place(id, p.xMm - dx, p.yMm + dy);
    },
    (id) => {
      const p = lies.get(id);
      if (p) choose(p.list, p.index);
    },
  );
  const parts = plan.parts.map((p) => {
    const [dx, dy] = drag.draggedBy(p.id);
    return { ...p, xMm: p.xMm - dx, yMm: p.yMm + dy };
  });
  const byId = new Map(parts.map((p) => [p.id, p]));
  const px = (p: { xMm: number }) => w - p.xMm;
  // the battery's half is left out where nothing lies there
  const shownMm = Math.min(plan.depthMm, Math.max(...parts.map((p) => p.yMm + p.depthMm / 2)) + 26);
  const cut = shownMm < plan.depthMm - 10;
  const bottom = cut ? shownMm : plan.depthMm;
  const faultAt = new Map<string, string[]>();
  for (const f of faults) faultAt.set(f.part, [...(faultAt.get(f.part) ?? []), f.message]);
  const flowOf = (fan: string) => point?.fans.find((f) => f.id === fan)?.flowLps;
  const high = bottom + MARGIN + (cut ? 4 : MARGIN);
  // words keep their size however small the plan is drawn
  const pxPerMm = Math.min(drawn.width / (w + 2 * MARGIN), drawn.height / high);
  const fontMm = WORDS_PX / Math.max(0.4, pxPerMm);
  const ways: (readonly HeatWay[])[] = plan.pipes.map((pipe) => {
    const read = point?.pipes.find((p) => p.id === pipe.id);
    // of the record that stands here, not of one before
    const fits = read?.along.map((a) => a.part).join() === pipe.through.join();
    return read && fits ? waysOfPipe(read.along) : [];
  });
  const onKeyDown = (p: PlacedPart) => (e: KeyboardEvent) => {
    const step = arrowStep(e, STEP_MM, 5 * STEP_MM);
    // left on the screen is the user's right
    if (step) place(p.id, p.xMm - step[0], p.yMm + step[1]);
    else if (e.key === 'Enter' || e.key === ' ') choose(p.list, p.index);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const shapes = (kinds: readonly PlacedPart['kind'][]) =>
    kinds.flatMap((kind) =>
      parts
        .filter((p) => p.kind === kind)
        .map((p) => (
          <PartShape
            key={p.id}
            part={p}
            x={px(p)}
            planMm={w}
            fontMm={fontMm}
            flowLps={p.kind === 'fan' ? flowOf(p.id) : undefined}
            faults={faultAt.get(p.id)}
            role="button"
            tabIndex={0}
            aria-pressed={p.id === chosen}
            chosen={p.id === chosen}
            style={{ cursor: 'grab', touchAction: 'none' }}
            data-part={p.id}
            aria-label={[`${WORD[p.kind]} ${p.id}`, faultAt.get(p.id)?.join('; ')]
              .filter(Boolean)
              .join(': ')}
            onKeyDown={onKeyDown(p)}
            {...drag.handlers(p.id)}
          />
        )),
    );
  return (
    <svg
      ref={svg}
      viewBox={`${-MARGIN} ${-MARGIN} ${w + 2 * MARGIN} ${high}`}
      className="w-full h-full select-none"
      role="group"
      aria-label="plan of the machine from below"
      data-testid="airway-map"
    >
      <MapOutline widthMm={w} bottomMm={bottom} cut={cut} fontMm={fontMm} />
      {shapes(BELOW)}
      {(record.finStacks ?? []).flatMap((s) =>
        (s.plates ?? []).map((id) => {
          const [plate, stack] = [byId.get(id), byId.get(s.id)];
          if (!plate || !stack) return null;
          // from the nearest place of the plate: the stack sits on it
          const half = plate.widthMm / 2;
          const xMm = Math.min(plate.xMm + half, Math.max(plate.xMm - half, stack.xMm));
          return (
            <line
              key={`${id}=${s.id}`}
              x1={px({ xMm })}
              y1={plate.yMm}
              x2={px(stack)}
              y2={stack.yMm}
              stroke="var(--color-secondary)"
              strokeWidth="2"
              strokeOpacity="0.85"
            />
          );
        }),
      )}
      {plan.pipes.map((pipe, i) => (
        <PipeLine
          key={pipe.id}
          id={pipe.id}
          index={pipe.index}
          through={pipe.through.map((id) => byId.get(id)!)}
          ways={ways[i]!}
          chosen={chosen === pipe.id}
          faults={faultAt.get(pipe.id)}
          fontMm={fontMm}
          px={px}
          choose={() => choose('heatPipes', pipe.index)}
        />
      ))}
      {shapes(ABOVE)}
      <AirArrows arrows={airArrows(record, byId, flowOf)} px={px} />
      <HeatWords ways={heatWays(ways)} byId={byId} px={px} fontMm={fontMm} />
    </svg>
  );
}
