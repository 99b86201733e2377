import { z } from 'zod';
import { wattsBand, type WattsBand } from '../uncertainty/wattsBand';
import type { Cap } from '../envelope/fanStates';
import { unitFacts } from '../family/unitFacts';
import { recordSchema } from '../record/recordSchema';
import { openUpLog } from '../service/openUpLog';

/** What the server answers and the page reads, each shape in one place, and from it the description of the HTTP interface. */

const revision = z.int().min(0);
const moment = z.iso.datetime();
const momentOrNull = moment.nullable();

/** One field that differs; absent on one side where it was added or removed. */
export const difference = z.object({
  path: z.string(),
  before: z.unknown().optional(),
  after: z.unknown().optional(),
});

export const unit = z.object({ id: z.string(), revision, facts: unitFacts });
export type Unit = z.infer<typeof unit>;

/** A machine's file: one state of one unit of a variant, as the record that joins them. */
export const machine = z.object({
  id: z.string(),
  revision,
  record: recordSchema,
  complete: z.boolean(),
  variantId: z.string(),
  unit,
  stateName: z.string(),
  createdAt: moment,
  updatedAt: moment,
  putAsideAt: momentOrNull,
});
export type Machine = z.infer<typeof machine>;

const cap = z.union([z.number(), z.literal('off'), z.literal('full')]);

/**
 * A machine as its page opens it: with the bands the library shows it by, so that its first figure waits for no draws. Empty
 * while they are being computed.
 */
export const bandedMachine = machine.extend({ bands: z.array(wattsBand.extend({ cap })) });
export type BandedMachine = z.infer<typeof bandedMachine>;

/** Column of the library with the watts of both dies together at a cap, the median of the draws. */
export type WattsColumn = 'togetherOffW' | 'togetherFullW' | `togetherAt${number}W`;

/** @example wattsColumn(36) // 'togetherAt36W' */
export function wattsColumn(cap: Cap): WattsColumn {
  if (cap === 'off') return 'togetherOffW';
  return cap === 'full' ? 'togetherFullW' : `togetherAt${cap}W`;
}

const numberOrNull = z.number().nullable();

/** Column beside {@link wattsColumn} with an end of the band. */
export function bandColumn(cap: Cap, end: 'P05' | 'P95'): `${WattsColumn}${'P05' | 'P95'}` {
  return `${wattsColumn(cap)}${end}`;
}

/** A row's columns with the watts at some caps, and the ends of their bands. */
export function wattsColumns(
  caps: readonly Cap[],
  at: (cap: Cap) => WattsBand | null,
): Record<string, number | null> {
  const out: Record<string, number | null> = {};
  for (const c of caps) {
    const band = at(c);
    out[wattsColumn(c)] = band?.p50 ?? null;
    out[bandColumn(c, 'P05')] = band?.p05 ?? null;
    out[bandColumn(c, 'P95')] = band?.p95 ?? null;
  }
  return out;
}

/** Columns of what firmware and adapter leave of the watts at some caps, for a table; null where it is not known. */
export function configuredColumns(
  caps: readonly Cap[],
  at: (cap: Cap) => WattsBand | null,
): Record<string, number | null> {
  return Object.fromEntries(
    caps.flatMap((c) => {
      const name = wattsColumn(c).replace('together', 'configured');
      const own = at(c)?.configured;
      return [
        [name, own?.p50 ?? null],
        [`${name}P05`, own?.p05 ?? null],
        [`${name}P95`, own?.p95 ?? null],
      ];
    }),
  );
}

/** A machine as a row of the library; watts at each cap of the laboratory, null where they are not known (yet). */
export const machineSummary = z.looseObject({
  id: z.string(),
  revision,
  maker: z.string(),
  model: z.string(),
  variant: z.string(),
  stateName: z.string(),
  complete: z.boolean(),
  fans: z.int(),
  pipes: z.number(),
  stacks: z.int(),
  chamber: z.boolean(),
  finAreaCm2: numberOrNull,
  thicknessMm: numberOrNull,
  massKg: numberOrNull,
  tags: z.array(z.string()),
  updatedAt: moment,
  putAsideAt: momentOrNull,
  /** Its watts are of an earlier record, or of other defaults, and are being computed. */
  wattsPending: z.boolean(),
});
type Listed = {
  [K in keyof z.infer<typeof machineSummary> as string extends K ? never : K]: z.infer<
    typeof machineSummary
  >[K];
};
export interface MachineSummary extends Listed {
  [column: `together${string}W${'' | 'P05' | 'P95'}`]: number | null;
}

const page = <T extends z.ZodType>(item: T) =>
  z.object({ items: z.array(item), total: z.int(), page: z.int(), pageSize: z.int() });

/** A page of a long list. */
export interface Page<T> {
  items: T[];
  total: number;
  page: number;
  pageSize: number;
}

/** A page of the library; caps that rows have watts for, and how many machines are being computed. */
export const machinePage = page(machineSummary).extend({ caps: z.array(cap), pending: z.int() });
export interface MachinePage extends Page<MachineSummary> {
  /** Caps that rows have watts for, from the quietest up. */
  caps: Cap[];
  /** Machines of the whole library whose watts are being computed. */
  pending: number;
}

/** A machine among those of its model. */
export const familyMember = z.object({
  id: z.string(),
  variantId: z.string(),
  unitId: z.string(),
  variant: z.string(),
  serial: z.string(),
  stateName: z.string(),
  complete: z.boolean(),
  togetherAt36W: numberOrNull,
  /** Watts of both dies together by cap, as far as they are computed. */
  watts: z.record(z.string(), wattsBand.nullable()),
  putAside: z.boolean(),
});
export type FamilyMember = z.infer<typeof familyMember>;

/** One revision and what it changed. */
export const revisionSummary = z.object({
  /** Who wrote it, where people sign in. */
  by: z.string().nullable(),
  revision,
  at: moment,
  /** How it came about, such as “put aside”; empty for what was typed. */
  note: z.string(),
  /** Of a machine's state. */
  name: z.string().nullable(),
  putAside: z.boolean(),
  /** How many fields changed against the revision before, and the first of them. */
  changed: z.int(),
  first: z.array(difference),
});
export type RevisionSummary = z.infer<typeof revisionSummary>;
export const revisionPage = page(revisionSummary);

const old = { revision, at: moment, note: z.string(), name: z.string().nullable() };

/** A record as it was at one revision. */
export const oldRecord = z.object({ ...old, record: recordSchema });

/** A document as it was at one revision. */
export const oldDocument = z.object({ ...old, value: z.unknown() });
export type OldDocument<T = unknown> = Omit<z.infer<typeof oldDocument>, 'value'> & { value: T };

/** A document of any kind as it stands; revision 0 where nothing was written yet. */
export const documentAnswer = z.object({
  kind: z.string(),
  id: z.string(),
  revision,
  value: z.unknown(),
  name: z.string().nullable(),
  putAsideAt: momentOrNull,
  createdAt: momentOrNull,
  updatedAt: momentOrNull,
});
export type DocumentAnswer<T = unknown> = Omit<z.infer<typeof documentAnswer>, 'value'> & {
  value: T;
};

/** The log of an opening as it stands; revision 0 where nothing was written yet. */
export const keptLog = z.object({ revision, log: openUpLog });
export type KeptLog = z.infer<typeof keptLog>;

/** A machine of the same model whose log another one can be begun from. */
export const logSibling = z.object({
  id: z.string(),
  variant: z.string(),
  stateName: z.string(),
  steps: z.int(),
  screws: z.int(),
});
export type LogSibling = z.infer<typeof logSibling>;

/** What an import does with one thing in the file. */
export const importItem = z.object({
  label: z.string(),
  name: z.string(),
  action: z.enum(['new', 'changed', 'same', 'refused']),
  /** Why it is refused. */
  reasons: z.array(z.object({ path: z.string(), message: z.string() })),
  /** The machine it changes or equals. */
  machineId: z.string().nullable(),
  changed: z.int(),
  first: z.array(difference),
  /** Photos and papers that are not in this library yet. */
  photos: z.int(),
  /** Runs that come with it. */
  runs: z.int(),
  /** Published reports that come with it. */
  editions: z.int(),
  /** What becomes of the log of the opening; null where the file brings none. */
  log: z.enum(['new', 'changed', 'same']).nullable(),
});
export type ImportItem = z.infer<typeof importItem>;

/** An error, as RFC 9457 has it; `errors` where single fields are refused, the rest where a write was made from an older version. */
export const problem = z.looseObject({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  errors: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  current: z.unknown().optional(),
  theirs: z.object({ revision, value: z.unknown() }).optional(),
  seen: z.object({ revision, value: z.unknown() }).nullable().optional(),
  differs: z.array(difference).optional(),
});

/** What happens to machines that an import would change. */
export const WHEN_CHANGED = ['update', 'new', 'skip'] as const;
export type WhenChanged = (typeof WHEN_CHANGED)[number];
