import type { CaseRecord } from '../record/recordSchema';
import { factsOfStepKind } from './stepKinds';
import type { HouseRules } from './houseRules';
import { step, type StepKind, type Step } from './openUpLog';

/**
 * A plan to begin with, after the order of work and the house's rules; each step is confirmed or changed as one goes.
 *
 * @param record the machine's record: its fans, dies and strips say what comes up
 * @param rules the house's rules
 * Source: common practice, no source.
 */
export function standardSteps(record: Partial<CaseRecord>, rules: HouseRules): Step[] {
  const plan: { act: StepKind; name?: string; needs: StepKind[] }[] = [
    { act: 'make-safe', needs: [] },
    { act: 'cover', needs: ['make-safe'] },
    { act: 'battery', needs: ['cover'] },
  ];
  const off: StepKind = rules.battery === 'take-out' ? 'battery-out' : 'battery';
  if (rules.battery === 'take-out') plan.push({ act: 'battery-out', needs: ['battery'] });
  if (record.strips?.length) {
    plan.push({
      act: 'strip',
      name: rules.strips === 'lift' ? 'Strips of known purpose lifted' : 'Strips looked at, left',
      needs: [off],
    });
  }
  const fans = record.fans?.length ?? 1;
  if (fans) {
    plan.push({ act: 'clean', needs: [off] });
    plan.push({ act: 'plugs', needs: [off], ...(fans === 1 ? { name: 'Fan plug out' } : {}) });
  }
  plan.push({ act: 'sink', needs: fans ? ['plugs'] : [off] });
  plan.push({ act: 'renew', needs: ['sink'] });
  if (rules.pads === 'new') plan.push({ act: 'pads', needs: ['sink'] });
  return plan.map(({ act, name, needs }) => {
    const facts = factsOfStepKind(act);
    return step.parse({
      id: act,
      name: name ?? facts.name,
      act,
      needs,
      reaches: facts.reaches,
      tools: facts.tools,
      consumables: facts.consumables,
      ...(act === 'cover' || act === 'sink' ? { layer: act === 'cover' ? 'base' : 'sink' } : {}),
      posture: 'base-up',
    });
  });
}

/** Layers that the standard steps speak of, with the shell's outline. */
export function standardLayers(outline: { widthMm?: number; depthMm?: number }) {
  return [
    { id: 'base', name: 'base cover', seenFrom: 'below' as const, ...outline },
    { id: 'sink', name: 'heat sink', seenFrom: 'below' as const, ...outline },
  ];
}
