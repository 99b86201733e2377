import { Router, type Request } from 'express';
import { zipSync } from 'fflate';
import { capsOf } from '@zugluft/core/case/laboratory';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import type { PeersAnswer } from '@zugluft/core/library/peersAnswer';
import { CARD_SIZES } from '@zugluft/core/report/cardChart';
import { readRatio } from '@zugluft/core/record/readRatio';
import { UNIT_SYSTEMS } from '@zugluft/core/report/quantity';
import { middleOf } from '@zugluft/core/verdict/verdict';
import { PAPERS, REPORT_FORMATS } from '@zugluft/publish/formats';
import { z } from 'zod';
import type { DocumentStore } from '../documents/documentStore';
import type { MachineList } from '../machines/machineList';
import { parse } from '../security/parse';
import type { GatherReport } from './gatherReport';
import type { MakeReport } from './makeReport';
import { countedOf } from './countedOf';
import { peersOfMachine } from './peersOfMachine';

const cap = z.union(
  [z.enum(['off', 'full']), z.coerce.number().min(0, 'from 0').max(120, 'to 120 dB(A)')],
  'is neither off, full nor a level in dB(A)',
);
export const reportQuery = z.strictObject({
  as: z.enum(REPORT_FORMATS).default('html'),
  cap: cap.optional(),
  setting: z.string().max(80).optional(),
  /** CPU to GPU watts with both dies loaded, in place of the setting's. */
  ratio: z
    .string()
    .max(40)
    .refine((text) => readRatio(text) !== null, 'needs CPU to GPU as two figures above 0')
    .optional(),
  units: z.enum(UNIT_SYSTEMS).default('metric'),
  paper: z.enum(PAPERS).default('A4'),
  size: z.enum(CARD_SIZES).default(CARD_SIZES[0]),
  save: z.enum(['0', '1']).default('0'),
});
export const siteQuery = z.strictObject({
  cap: cap.optional(),
  units: z.enum(UNIT_SYSTEMS).default('metric'),
});
export const peersQuery = z.strictObject({ cap: cap.optional() });

const TYPES = {
  html: 'text/html; charset=utf-8',
  pdf: 'application/pdf',
  md: 'application/zip',
  json: 'application/json',
  csv: 'text/csv; charset=utf-8',
  svg: 'image/svg+xml',
  'card-svg': 'image/svg+xml',
  'card-png': 'image/png',
} as const;

/** Routes under /api/machines/:id: a report for readers, and the machines it is held against. */
export function reportRoutes(
  documents: DocumentStore,
  list: MachineList,
  gather: GatherReport,
  calibrated: () => Promise<ReadonlySet<string>>,
  make: MakeReport,
): Router {
  const router = Router({ mergeParams: true });
  const idOf = (req: Request) =>
    parse(z.uuid('is not a machine’s id'), (req.params as { id?: string }).id);

  router.get('/peers', async (req, res) => {
    const id = idOf(req);
    const query = parse(peersQuery, req.query);
    const { caps, points } = (await documents.read('settings', LABORATORY)).value;
    const at = query.cap ?? middleOf(capsOf({ caps: caps.levelsDbA }));
    const rows = await list.rows();
    const counting = countedOf(rows, id, at, points, await calibrated());
    res.json({
      cap: at,
      peers: peersOfMachine(rows, id, at),
      counted: counting?.counted ?? null,
      points: counting?.points ?? null,
    } satisfies PeersAnswer);
  });

  router.get('/report', async (req, res) => {
    const id = idOf(req);
    const query = parse(reportQuery, req.query);
    const { job, name } = await gather(id, query);
    const { files } = await make({
      ...job,
      forms: [
        {
          as: query.as,
          base: `${name}.${query.as.replace('card-', '')}`,
          paper: query.paper,
          size: query.size,
        },
      ],
    });
    const [file] = files;
    res.type(TYPES[query.as]);
    if (query.as === 'md') {
      const zipped = Object.fromEntries(files.map((f) => [f.name, new Uint8Array(f.bytes)]));
      res.attachment(`${name}-report.zip`).type('application/zip');
      res.send(Buffer.from(zipSync(zipped)));
      return;
    }
    if (query.save === '1') res.attachment(file!.name);
    // from a thread bytes come without the class of a buffer
    res.send(Buffer.from(file!.bytes));
  });

  return router;
}
