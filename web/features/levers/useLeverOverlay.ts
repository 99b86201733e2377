import { useEffect } from 'react';
import type { LeverGain } from '@zugluft/core/levers/leverGains';
import { showOverlay } from '../../documents/answer/overlay';

/**
 * Lays over the ladder what a lever would add.
 *
 * @param name of it
 * @param at its gains; absent: nothing lies there
 */
export function useLeverOverlay(name: string, at: readonly LeverGain[] | undefined): void {
  useEffect(() => {
    if (!at) return;
    showOverlay({ name, gainedW: new Map(at.map((g) => [g.cap, g.wattsGained.p50])) });
    return () => showOverlay(null);
  }, [name, at]);
}
