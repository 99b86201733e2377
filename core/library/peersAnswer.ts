import { z } from 'zod';

const band = z.object({ p05: z.number(), p50: z.number(), p95: z.number() });

const countedSchema = z.discriminatedUnion('refused', [
  z.object({ refused: z.literal(true), machines: z.int(), needs: z.int() }),
  z.object({
    refused: z.literal(false),
    machines: z.int(),
    band,
    leaveOneOutShare: z.number(),
  }),
]);

/** A machine's place among those of its kind; null while its watts are being computed. */
export const peersAnswer = z.object({
  cap: z.union([z.number(), z.literal('off'), z.literal('full')]),
  peers: z
    .object({
      items: z.array(
        z.object({
          id: z.string(),
          name: z.string(),
          band,
          isOwn: z.boolean(),
          /** That it sustains more than the machine that is looked at; null for that one itself. */
          chance: z.number().nullable(),
        }),
      ),
      rank: z.object({ best: z.int(), worst: z.int(), of: z.int() }),
    })
    .nullable(),
  /** Of the machines whose watts were learned from runs; null while the machine is not in the list. */
  counted: countedSchema.nullable(),
  /** By the laboratory's rule of watts for each part; null where it gives none. */
  points: z
    .object({ watts: z.number(), machines: z.int(), offShare: z.number().nullable() })
    .nullable(),
});
export type PeersAnswer = z.infer<typeof peersAnswer>;
