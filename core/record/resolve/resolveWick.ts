import { type WickData } from '../caseData';
import { type WickKind } from '../../pipes/pipeSection';
import { type DefaultKey } from '../defaults';
import { type Resolver } from '../resolver';

/** A wick of a kind. */
export function resolveWick(kind: WickKind, r: Resolver): WickData {
  const key = (name: string) => `heatPipes.${name}.${kind}` as DefaultKey;
  return {
    permeabilityM2: r.factor(key('permeability')),
    poreM: r.factor(key('poreUm')) * 1e-6,
    conductivityWmK: r.factor(key('wickWmK')),
  };
}
