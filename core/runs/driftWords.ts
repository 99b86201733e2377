import type { Drift } from './steadyWindow';

const UNITS: Readonly<Record<Drift['kind'], string>> = {
  temperature: 'K',
  power: 'W',
  speed: 'rpm',
  level: 'dB',
  other: '',
};

const figure = (x: number): string => {
  const size = Math.abs(x);
  return size.toFixed(size < 10 ? 1 : 0);
};

const minutes = (s: number): string =>
  s < 90 ? `${Math.max(1, Math.round(s))} s` : `${Math.round(s / 60)} min`;

/**
 * What is not steady, in words.
 *
 * @example driftWords(drift) // 'CPU temperature still rises by 2.1 K in 5 min and had 3.4 K to go; it would have settled 6 min later'
 */
export function driftWords(drift: Drift): string {
  const { kind, by, overS, swings, left, settledInS } = drift;
  // a unit behind a column's name is no part of what it is called
  const column = drift.column.replace(/\s*[[(][^\])]*[\])]\s*$/, '') || drift.column;
  const unit = UNITS[kind];
  if (swings !== null) return `${column} swings by ${figure(swings)} ${unit} about its mean`;
  const way = by > 0 ? 'rises' : 'falls';
  const told = `${column} still ${way} by ${figure(by)} ${unit} in ${minutes(overS)}`;
  if (left === null || settledInS === null)
    return `${told}, too early to tell when it would have settled`;
  return `${told} and had ${figure(left)} ${unit} to go; it would have settled ${minutes(settledInS)} later`;
}
