import { Router, type Request } from 'express';
import { zipSync } from 'fflate';
import { withCalibration } from '@zugluft/core/calibration/caseKey';
import { capsOf } from '@zugluft/core/case/laboratory';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import type { PeersAnswer } from '@zugluft/core/library/peersAnswer';
import { CARD_SIZES } from '@zugluft/core/report/cardChart';
import { readRatio } from '@zugluft/core/record/readRatio';
import { UNIT_SYSTEMS } from '@zugluft/core/report/quantity';
import type { MeasuredState } from '@zugluft/core/report/report';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';
import { middleOf } from '@zugluft/core/verdict/verdict';
import { PAPERS, REPORT_FORMATS } from '@zugluft/publish/formats';
import { z } from 'zod';
import program from '../../package.json';
import type { DocumentStore } from '../documents/documentStore';
import { fileName } from '../exchange/exportLibrary';
import type { MachineList } from '../machines/machineList';
import type { CalibrationInUse } from '../runs/calibrationInUse';
import { machineCase } from '../runs/machineCase';
import type { RunSummaries } from '../runs/runSummaries';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';
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
  summaries: RunSummaries,
  readCalibration: (machineId: string) => Promise<CalibrationInUse | null>,
  calibrated: () => Promise<ReadonlySet<string>>,
  make: MakeReport,
): Router {
  const router = Router({ mergeParams: true });
  const idOf = (req: Request) =>
    parse(z.uuid('is not a machine’s id'), (req.params as { id?: string }).id);

  router.get('/peers', async (req, res) => {
    const id = idOf(req);
    const query = parse(peersQuery, req.query);
    const { caps } = (await documents.read('settings', LABORATORY)).value;
    const at = query.cap ?? middleOf(capsOf({ caps: caps.levelsDbA }));
    const rows = await list.rows();
    res.json({
      cap: at,
      peers: peersOfMachine(rows, id, at),
      counted: countedOf(rows, id, at, await calibrated()),
    } satisfies PeersAnswer);
  });

  router.get('/report', async (req, res) => {
    const id = idOf(req);
    const query = parse(reportQuery, req.query);
    const machine = await machineCase(documents, id, query.setting);
    if (!machine) {
      throw new Problem(409, 'No report yet', 'the record is not complete: there are no watts');
    }
    const settings = (await documents.read('settings', LABORATORY)).value;
    const inUse = await readCalibration(id);
    const { request } = withCalibration(
      { ...machine.request, ratio: (query.ratio && readRatio(query.ratio)) || undefined },
      inUse,
    );
    const caps = capsOf(request.lab).filter((c) => typeof c === 'number');
    const at = query.cap ?? middleOf(caps);
    const [file, ...beside] = await make({
      request,
      caps,
      cap: at,
      log: await logOf(documents, id),
      rubric: settings.rubric,
      threshold: settings.noticeable,
      measured: measuredOf(await summaries.steady(id), request.record.room?.temperatureC),
      peers: peersOfMachine(await list.rows(), id, at),
      units: query.units,
      paper: query.paper,
      size: query.size,
      as: query.as,
      base: `${fileName(request.record)}.${query.as.replace('card-', '')}`,
      trace: {
        record: `revision ${machine.revision}`,
        program: program.version,
        draws: SHOWN_DRAWS,
        seed: SHOWN_SEED,
        day: new Date().toISOString().slice(0, 10),
      },
    });
    res.type(TYPES[query.as]);
    if (query.as === 'md') {
      const files = Object.fromEntries(
        [file!, ...beside].map((f) => [f.name, new Uint8Array(f.bytes)]),
      );
      res.attachment(`${fileName(request.record)}-report.zip`).type('application/zip');
      res.send(Buffer.from(zipSync(files)));
      return;
    }
    if (query.save === '1') res.attachment(file!.name);
    // from a thread bytes come without the class of a buffer
    res.send(Buffer.from(file!.bytes));
  });

  return router;
}

async function logOf(documents: DocumentStore, id: string) {
  const { value } = await documents.read('log', id);
  return value.steps.length > 0 || value.screws.length > 0 ? value : null;
}

function measuredOf(
  { items }: Awaited<ReturnType<RunSummaries['steady']>>,
  room: unknown,
): MeasuredState[] {
  const roomC = typeof room === 'object' && room && 'value' in room ? Number(room.value) : null;
  return items.flatMap((run) => {
    const last = run.states[run.states.length - 1];
    const cpu = last?.means['cpuPowerW']?.mean;
    const gpu = last?.means['gpuPowerW']?.mean;
    if (!last || (cpu === undefined && gpu === undefined)) return [];
    return [
      {
        run: run.name || run.on,
        cpuW: Math.max(0, cpu ?? 0),
        gpuW: Math.max(0, gpu ?? 0),
        levelDbA: last.means['levelDbA']?.mean ?? null,
        roomC: last.means['roomC']?.mean ?? roomC,
      },
    ];
  });
}
