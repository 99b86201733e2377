import type { MachineSummary } from '@zugluft/core/library/answers';

/** A machine in one line. */
export const nameOf = (m: MachineSummary): string =>
  [m.maker, m.model, m.variant].filter(Boolean).join(' ') || 'Unnamed machine';
