import { KIND_NAMES, kindNamed, type KindName } from '@zugluft/core/documents/kinds';
import { unitFacts } from '@zugluft/core/family/unitFacts';
import { MAX_ATTACHMENTS } from '@zugluft/core/library/attachment';
import { MAX_RUNS } from '@zugluft/core/library/runAnswers';
import { z } from 'zod';
import { MAX_EDITIONS } from '../reports/editionBounds';
import { attachmentEntry } from './candidate';

/** Machines that one file may bring. */
export const MAX_MACHINES = 10_000;

/** Kinds that travel beside a record as files of their own. */
const TRAVELLING = KIND_NAMES.filter(
  (k) => k !== 'record' && kindNamed(k).travels?.as === 'file',
) as [KindName, ...KindName[]];

/** The list in the zip of a library, which brings variants, units and tags back. */
export const MANIFEST = 'manifest.json';
const listedMachine = z.object({
  file: z.string().max(300),
  log: z.string().max(300).nullable().default(null),
  documents: z
    .array(z.object({ kind: z.enum(TRAVELLING), file: z.string().max(300) }))
    .max(20)
    .default([]),
  id: z.uuid(),
  variantId: z.uuid(),
  unitId: z.uuid(),
  stateName: z.string().min(1).max(80),
  tags: z.array(z.string().min(1).max(40)).max(30).default([]),
  unit: unitFacts.default({}),
  attachments: z.array(attachmentEntry).max(MAX_ATTACHMENTS).default([]),
  runs: z
    .array(z.object({ folder: z.string().max(300) }))
    .max(MAX_RUNS)
    .default([]),
  editions: z
    .array(
      z.object({
        number: z.int().min(1).max(MAX_EDITIONS),
        createdAt: z.iso.datetime(),
        recordRevision: z.int().min(1).max(1e9),
        files: z.string().max(300),
        said: z.string().max(300),
      }),
    )
    .max(MAX_EDITIONS)
    .default([]),
});
/** A machine as the list names it. */
export type ListedMachine = z.infer<typeof listedMachine>;
export const manifestSchema = z.object({
  format: z.literal('zugluft-library'),
  formatVersion: z.literal(1),
  machines: z.array(listedMachine).max(MAX_MACHINES),
});
