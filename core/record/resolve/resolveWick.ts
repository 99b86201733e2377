import { type WickData } from '../caseData';
import { DEFAULTS, type DefaultKey } from '../defaults';
import { type Resolver } from '../resolver';

/** A wick of a kind; a coarser one lets more through and pumps less. */
export function resolveWick(kind: 'sintered' | 'grooved' | 'mesh', r: Resolver): WickData {
  const key = (name: string) => `heatPipes.${name}.${kind}` as DefaultKey;
  const poreUm = r.factor(key('poreUm'));
  return {
    permeabilityM2: r.factor(key('permeability')) * (poreUm / DEFAULTS[key('poreUm')].value) ** 2,
    poreM: poreUm * 1e-6,
    conductivityWmK: r.factor(key('wickWmK')),
  };
}
