import { type WickData } from '../caseData';
import { type WickKind } from '../../pipes/pipeSection';
import { type Resolver } from '../resolver';

/** A wick of a kind. */
export function resolveWick(kind: WickKind, r: Resolver): WickData {
  return {
    permeabilityM2: r.factor(`heatPipes.permeability.${kind}`),
    poreM: r.factor(`heatPipes.poreUm.${kind}`) * 1e-6,
    conductivityWmK: r.factor(`heatPipes.wickWmK.${kind}`),
  };
}
