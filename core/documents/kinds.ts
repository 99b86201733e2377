import { articleKind } from './article/articleKind';
import { benchDayKind } from './benchDay/benchDayKind';
import type { DocumentKind } from './documentKind';
import { guessesKind } from './guesses/guessesKind';
import { labDefaultsKind } from './labDefaults/labDefaultsKind';
import { labSettingsKind } from './labSettings/labSettingsKind';
import { marksKind } from './marks/marksKind';
import { openingLogKind } from './openingLog/openingLogKind';
import { plansKind } from './plans/plansKind';
import { photoKind } from './photo/photoKind';
import { runKind } from './run/runKind';
import { recordKind } from './record/recordKind';
import { unitKind } from './unit/unitKind';

/** Every kind of document there is: a new one is added here and has a folder of its own beside this file. */
export const DOCUMENT_KINDS = {
  record: recordKind,
  log: openingLogKind,
  unit: unitKind,
  photo: photoKind,
  marks: marksKind,
  run: runKind,
  plans: plansKind,
  article: articleKind,
  guesses: guessesKind,
  settings: labSettingsKind,
  defaults: labDefaultsKind,
  day: benchDayKind,
} as const;

export type KindName = keyof typeof DOCUMENT_KINDS;
export type ValueOf<K extends KindName> =
  (typeof DOCUMENT_KINDS)[K] extends DocumentKind<infer T> ? T : never;

export const KIND_NAMES = Object.keys(DOCUMENT_KINDS) as KindName[];

/** The id of the documents that a laboratory has one of. */
export const LABORATORY = 'laboratory';

/** A kind by its name, whatever its values are. */
export const kindNamed = (name: KindName): DocumentKind<unknown> =>
  DOCUMENT_KINDS[name] as unknown as DocumentKind<unknown>;
