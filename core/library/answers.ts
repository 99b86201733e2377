import type { Difference } from '../family/diffRecords';
import type { UnitFacts } from '../family/unitFacts';
import type { CaseRecord } from '../record/recordSchema';
import type { OpenUpLog } from '../service/openUpLog';

/** What the server answers and the page reads, each shape in one place. */

export interface Unit {
  id: string;
  revision: number;
  facts: UnitFacts;
}

/** A machine's file: one state of one unit of a variant, as the record that joins them. */
export interface Machine {
  id: string;
  revision: number;
  record: CaseRecord;
  complete: boolean;
  variantId: string;
  unit: Unit;
  stateName: string;
  createdAt: string;
  updatedAt: string;
  putAsideAt: string | null;
}

/** Caps at which the library lists watts, with the column of each. */
export const WATTS_AT = {
  '28': 'togetherAt28W',
  '32': 'togetherAt32W',
  '36': 'togetherAt36W',
  '40': 'togetherAt40W',
  '45': 'togetherAt45W',
  full: 'togetherFullW',
} as const;
export const LIST_CAPS = ['28', '32', '36', '40', '45', 'full'] as const;
export type ListCap = (typeof LIST_CAPS)[number];
export type WattsColumn = (typeof WATTS_AT)[ListCap];

/** A machine as a row of the library. */
export interface MachineSummary extends Record<WattsColumn, number | null> {
  id: string;
  revision: number;
  maker: string;
  model: string;
  variant: string;
  stateName: string;
  complete: boolean;
  fans: number;
  pipes: number;
  stacks: number;
  chamber: boolean;
  finAreaCm2: number | null;
  thicknessMm: number | null;
  massKg: number | null;
  tags: string[];
  updatedAt: string;
  putAsideAt: string | null;
}

/** A page of a long list. */
export interface Page<T> {
  items: T[];
  total: number;
  page: number;
  pageSize: number;
}

/** A machine among those of its model. */
export interface FamilyMember {
  id: string;
  variantId: string;
  unitId: string;
  variant: string;
  serial: string;
  stateName: string;
  complete: boolean;
  togetherAt36W: number | null;
  putAside: boolean;
}

/** One revision and what it changed. */
export interface RevisionSummary {
  revision: number;
  at: string;
  /** How many fields changed against the revision before, and the first of them. */
  changed: number;
  first: Difference[];
}

/** A record as it was at one revision. */
export interface OldRecord {
  revision: number;
  at: string;
  record: CaseRecord;
}

/** The log of an opening as it stands; revision 0 where nothing was written yet. */
export interface KeptLog {
  revision: number;
  log: OpenUpLog;
}

/** A machine of the same model whose log another one can be begun from. */
export interface LogSibling {
  id: string;
  variant: string;
  stateName: string;
  steps: number;
  screws: number;
}

/** What an import does with one thing in the file. */
export interface ImportItem {
  label: string;
  name: string;
  action: 'new' | 'changed' | 'same' | 'refused';
  /** Why it is refused. */
  reasons: { path: string; message: string }[];
  /** The machine it changes or equals. */
  machineId: string | null;
  changed: number;
  first: Difference[];
  /** Photos and papers that are not in this library yet. */
  photos: number;
  /** What becomes of the log of the opening; null where the file brings none. */
  log: 'new' | 'changed' | 'same' | null;
}

/** What happens to machines that an import would change. */
export const WHEN_CHANGED = ['update', 'new', 'skip'] as const;
export type WhenChanged = (typeof WHEN_CHANGED)[number];
