import { backTogether, type BackStep } from '@zugluft/core/service/backTogether';
import { lastTaken, lastUnplugged, looseCheck, screwsOf } from '@zugluft/core/service/benchEdits';
import { cautionsOf, type CautionId } from '@zugluft/core/service/cautions';
import { rulesAt, type HouseRules } from '@zugluft/core/service/houseRules';
import { isPlaced } from '@zugluft/core/service/openUpLog';
import { stepKindOf } from '@zugluft/core/service/stepKinds';
import { looseningOrder } from '@zugluft/core/service/tighteningOrder';
import type { OpenUpLog } from '../../../api/openUp';
import type { BenchSide } from './benchPlace';

export type Step = OpenUpLog['steps'][number];

/** By what a step of the way back is told from others. */
export const keyOfBack = (b: BackStep): string =>
  b.undoes ?? (b.loose === null ? `check:${b.check}` : looseCheck(b.loose));

/**
 * What stands on the bench: the step of the opening and that of the way back, what is to be read before, in which order.
 *
 * @param log of the opening
 * @param rules of the house
 * @param wanted step that was gone to, by id or by its key on the way back; null: the first that waits
 */
export function benchPlan(
  log: OpenUpLog,
  rules: HouseRules,
  side: BenchSide,
  wanted: string | null,
) {
  const step: Step | undefined =
    log.steps.find((s) => s.id === wanted) ??
    log.steps.find((s) => s.state === 'planned') ??
    log.steps.at(-1);
  const house = rulesAt(step ? stepKindOf(step) : 'other', rules);
  const cautions: CautionId[] = step ? [...new Set([...cautionsOf(step), ...house.cautions])] : [];
  const way = backTogether(log, rules);
  const ended = (b: BackStep) =>
    b.undoes === null
      ? log.checked.includes(b.check ?? looseCheck(b.loose ?? ''))
      : (log.steps.find((s) => s.id === b.undoes)?.back ?? false);
  const back =
    way.find((b) => keyOfBack(b) === wanted) ??
    (wanted === 'end' ? undefined : way.find((b) => !ended(b)));
  // where the order matters: printed numbers, or a heat sink that must not tilt
  const holes = step ? screwsOf(log, step.id).filter(isPlaced) : [];
  const printed = holes.length > 1 && holes.every((h) => h.printed !== undefined);
  const loosening = printed || (step && stepKindOf(step) === 'sink') ? looseningOrder(holes) : [];
  const last = step ? lastTaken(log, step.id) : undefined;
  const group = side === 'open' ? last?.group : back?.screws[0]?.group;
  return {
    step,
    index: step ? log.steps.indexOf(step) : -1,
    layer: log.layers.find((l) => l.id === step?.layer) ?? log.layers[0]!,
    house,
    cautions,
    unread: cautions.filter((c) => !log.acknowledged.includes(c)),
    way,
    back,
    backIndex: back ? way.indexOf(back) : way.length,
    /** Holes in the order in which they are loosened, or tightened on the way back. */
    order: side === 'open' ? loosening : (back?.tightening?.order ?? []),
    lastPlug: step ? lastUnplugged(log, step.id) : undefined,
    /** Letter of the group that the last screw here belonged to. */
    lastLetter: log.groups.find((g) => g.id === group)?.letter,
  };
}

export type BenchPlan = ReturnType<typeof benchPlan>;
