import type { DefaultKey } from '../record/defaults';

/** Means of the bench that settle what cannot be read off an opened machine. */
export type BenchMeans = 'noise-sweep' | 'fan-curve' | 'run-under-load';

/** What settles a default that is no figure of the record; one that stands in no line is settled by nothing yet. */
export const SETTLED_BY: Readonly<Partial<Record<DefaultKey, BenchMeans>>> = {
  'noise.referenceDbA': 'noise-sweep',
  'noise.sweepOffsetDb': 'noise-sweep',
  'fans.psi': 'fan-curve',
  'fans.phi': 'fan-curve',
  'fans.curveExponent': 'fan-curve',
  'fans.recirculation': 'run-under-load',
  'fans.leakage': 'run-under-load',
  'finStacks.uaFactor': 'run-under-load',
  'finStacks.nusseltFactor': 'run-under-load',
  'dies.hotSpotFactor': 'run-under-load',
  'dies.interface.contactM2KW': 'run-under-load',
  'dies.interface.ageingPerYear.paste': 'run-under-load',
  'dies.interface.ageingPerYear.phase-change': 'run-under-load',
  'dies.interface.ageingPerYear.graphite': 'run-under-load',
  'dies.interface.ageingPerYear.liquid-metal': 'run-under-load',
  'dies.interface.ageingPerYear.pad': 'run-under-load',
  'heatPipes.wickWmK.sintered': 'run-under-load',
  'heatPipes.wickWmK.grooved': 'run-under-load',
  'heatPipes.wickWmK.mesh': 'run-under-load',
  'heatPipes.solderM2KW': 'run-under-load',
  'heatPipes.limitFactor.sintered': 'run-under-load',
  'heatPipes.limitFactor.grooved': 'run-under-load',
  'heatPipes.limitFactor.mesh': 'run-under-load',
  'plates.chamberLimitFactor': 'run-under-load',
  'shell.boardWK': 'run-under-load',
  'shell.insideAirWm2K': 'run-under-load',
  'shell.evenness.aluminium': 'run-under-load',
  'shell.evenness.magnesium': 'run-under-load',
  'shell.evenness.plastic': 'run-under-load',
  'shell.evenness.mixed': 'run-under-load',
  'power.restAirShare': 'run-under-load',
  'power.restLidShare': 'run-under-load',
};
