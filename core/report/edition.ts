import { diffRecords, type Difference } from '../family/diffRecords';
import type { CaseRecord } from '../record/recordSchema';
import { ARTICLE_FIELDS, type Article } from './article';
import type { ReportFigure } from './reportFigures';
import type { UnitSystem } from './quantity';

/** What a report said when it was published: never changed afterwards. */
export interface EditionSource {
  headline: string;
  figures: ReportFigure[];
  conditions: { name: string; value: string }[];
  record: CaseRecord;
  article: Article;
  program: string;
  /** What was asked of it. */
  cap: string;
  setting: string | null;
  /** CPU to GPU as it was chosen; absent in editions of before this was kept. */
  ratio?: string | null | undefined;
  units: UnitSystem;
  /** Published in another library, whose revision of the record it tells. */
  imported?: true | undefined;
}

/** A figure that reads otherwise; null where one of the editions does not tell it. */
export interface FigureChange {
  figure: string;
  cap: string;
  unit: string;
  before: Banded | null;
  after: Banded | null;
}

interface Banded {
  p05: number | null;
  value: number;
  p95: number | null;
}

/** What differs from one edition to the next. */
export interface EditionChanges {
  headline: { before: string; after: string } | null;
  figures: FigureChange[];
  conditions: { name: string; before: string | null; after: string | null }[];
  /** Fields of the record. */
  record: Difference[];
  /** Titles of the fields that the reviewer wrote anew. */
  words: string[];
  /** What was asked of it, and the program that answered. */
  asked: { name: string; before: string; after: string }[];
}

const keyOf = (f: ReportFigure): string => `${f.figure}\n${f.cap}\n${f.unit}`;

const banded = (f: ReportFigure | undefined): Banded | null =>
  f ? { p05: f.p05, value: f.value, p95: f.p95 } : null;

const isSame = (a: Banded | null, b: Banded | null): boolean =>
  a?.p05 === b?.p05 && a?.value === b?.value && a?.p95 === b?.p95;

/**
 * What a reader of an edition has to be told who knew the one before.
 *
 * @param before @param after two editions of one machine, or an edition and what would be the next one
 */
export function editionChanges(before: EditionSource, after: EditionSource): EditionChanges {
  const [old, now] = [before, after].map((s) => new Map(s.figures.map((f) => [keyOf(f), f]))) as [
    Map<string, ReportFigure>,
    Map<string, ReportFigure>,
  ];
  const figures = [...new Set([...old.keys(), ...now.keys()])].flatMap((key): FigureChange[] => {
    const change = { before: banded(old.get(key)), after: banded(now.get(key)) };
    if (isSame(change.before, change.after)) return [];
    const { figure, cap, unit } = (now.get(key) ?? old.get(key))!;
    return [{ figure, cap, unit, ...change }];
  });
  const names = [...new Set([...before.conditions, ...after.conditions].map((c) => c.name))];
  const of = (s: EditionSource, name: string) =>
    s.conditions.find((c) => c.name === name)?.value ?? null;
  const told = (name: string, read: (s: EditionSource) => string) =>
    read(before) === read(after) ? [] : [{ name, before: read(before), after: read(after) }];
  return {
    headline:
      before.headline === after.headline
        ? null
        : { before: before.headline, after: after.headline },
    figures,
    conditions: names.flatMap((name) => {
      const pair = { before: of(before, name), after: of(after, name) };
      return pair.before === pair.after ? [] : [{ name, ...pair }];
    }),
    record: diffRecords(before.record, after.record),
    words: ARTICLE_FIELDS.filter(
      ({ id }) => (before.article[id] ?? '').trim() !== (after.article[id] ?? '').trim(),
    ).map((f) => f.title),
    asked: [
      ...told('cap', (s) => s.cap),
      ...told('setting', (s) => s.setting ?? 'as recorded'),
      ...told('CPU to GPU', (s) => s.ratio ?? 'as the setting has it'),
      ...told('units', (s) => s.units),
      ...told('program', (s) => s.program),
    ],
  };
}

/** Whether nothing would be new in it. */
export const nothingNew = (c: EditionChanges): boolean =>
  c.headline === null &&
  [c.figures, c.conditions, c.record, c.words, c.asked].every((list) => list.length === 0);
