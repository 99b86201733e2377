import { DEFAULTS, type Default, type DefaultKey } from './defaults';
import { MEASURED_WORDS } from './field';
import { fieldAt } from './fieldTable';
import { HOW_TO } from './howToTable';

/** Small line drawings that show where a figure is taken. */
export const DRAWINGS = [
  'fin-pitch',
  'pressed-pipe',
  'impeller',
  'open-share',
  'foot',
  'bond-line',
  'die',
  'microphone',
  'sensor',
  'along-pipe',
  'stack',
  'vent',
] as const;
export type DrawingId = (typeof DRAWINGS)[number];

/** How a figure is taken. Common practice, no source. */
export interface HowTo {
  /** By what; where nothing is said, that of its field. */
  tool?: string;
  /** Where to hold it, what to count. */
  where: string;
  /** What is often misread. */
  misread: string;
  /** What most machines have, in the record's unit. */
  usual?: readonly [low: number, high: number];
  drawing?: DrawingId;
}

/** The default that is taken where a field is empty; undefined where none is, or where it follows from others. */
function assumedFor(at: string): Default | undefined {
  const plain = at.replace(/\.\*/g, '');
  return DEFAULTS[plain as DefaultKey] as Default | undefined;
}

/** All that is told of how a field is taken. */
export interface Measuring extends HowTo {
  at: string;
  name: string;
  unit: string;
  tool: string;
  assumed: Default | undefined;
}

/**
 * How the field at a path is taken: by what, where, what is often misread, its usual range and what is assumed without it.
 *
 * @param path parts by their place or name
 * @returns undefined where nothing is measured there
 * @example measuringOf('finStacks.0.depthMm')?.where
 */
export function measuringOf(path: string): Measuring | undefined {
  const field = fieldAt(path);
  const known = field && HOW_TO[field.at];
  if (!known) return undefined;
  return {
    ...known,
    at: field.at,
    name: field.name,
    unit: field.unit,
    tool: known.tool ?? (field.measured ? MEASURED_WORDS[field.measured] : 'by eye'),
    assumed: assumedFor(field.at),
  };
}
