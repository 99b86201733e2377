import {
  documentAnswer,
  familyMember,
  importItem,
  keptLog,
  logSibling,
  machine,
  machinePage,
  bandedMachine,
  oldDocument,
  oldRecord,
  revisionPage,
  unit,
} from '@zugluft/core/library/answers';
import { backupsAnswer, restoredAnswer } from '../backup/backupAnswers';
import { sessionAnswer, sessionsAnswer, signInBody } from '../security/sessions';
import { healthAnswer } from '../health';
import { attachment } from '@zugluft/core/library/attachment';
import { keptMeasures, markProposals } from '@zugluft/core/library/measuresAnswer';
import { photoMarksSchema } from '@zugluft/core/photo/photoMarks';
import { KIND_NAMES } from '@zugluft/core/documents/kinds';
import { labDefaultsKind } from '@zugluft/core/documents/labDefaults/labDefaultsKind';
import { labSettingsKind } from '@zugluft/core/documents/labSettings/labSettingsKind';
import { stateName, unitFacts } from '@zugluft/core/family/unitFacts';
import { attachmentFacts } from '@zugluft/core/library/attachment';
import { labDefaultSchema } from '@zugluft/core/record/labDefaults';
import { recordSchema } from '@zugluft/core/record/recordSchema';
import { openUpLog } from '@zugluft/core/service/openUpLog';
import { z } from 'zod';
import {
  fanSweepAnswer,
  inbox,
  keptRun,
  residualPage,
  series,
  steadyOfRuns,
  usualOfRuns,
  takenLog,
  whyOutsideAnswer,
} from '@zugluft/core/library/runAnswers';
import { runSchema } from '@zugluft/core/runs/runDocument';
import { calibrationFigures, keptCalibration } from '@zugluft/core/calibration/calibrationAnswer';
import { calibrationListQuery, versionInUse } from '../runs/calibrationRoutes';
import {
  foretellBody,
  layoutBody,
  logQuery,
  residualQuery,
  runListQuery,
  seriesQuery,
  takeBody,
} from '../runs/runRoutes';
import { addQuery, attachmentListQuery, proposalQuery } from '../attachments/attachmentRoutes';
import { historyQuery, valueBody } from '../documents/documentRoutes';
import { importQuery } from '../exchange/exchangeRoutes';
import { listQuery } from '../machines/listQuery';
import { tagChange } from '../machines/machineTags';
import { editionAnswer, editionSummary } from '@zugluft/core/library/editionAnswers';
import { learnedAnswer } from '@zugluft/core/library/learnedAnswer';
import { wearAnswer } from '@zugluft/core/library/wearAnswer';
import { guessPage } from '@zugluft/core/opinion/hits';
import { peersAnswer } from '@zugluft/core/library/peersAnswer';
import { guessQuery } from '../opinions/guessRoutes';
import { editionBody, editionFileQuery, editionListQuery } from '../reports/editionRoutes';
import { peersQuery, reportQuery, siteQuery } from '../reports/reportRoutes';
import { guideQuery } from '../openup/guideRoutes';

/** One address of the HTTP interface. */
export interface RouteDescription {
  method: 'get' | 'post' | 'put' | 'delete';
  /** Parameters in braces. */
  path: string;
  summary: string;
  query?: z.ZodType;
  /** JSON, or the bytes of a file. */
  body?: z.ZodType | 'file';
  /** Replaces what stands there: needs the revision seen as If-Match. */
  lock?: true;
  status?: 201;
  /** JSON, or a media type. */
  answer: z.ZodType | string;
}

const items = <T extends z.ZodType>(item: T) => z.object({ items: z.array(item) });
const named = z.strictObject({ name: stateName });
const recordBody = z.strictObject({ record: recordSchema });
const defaultItems = z.object({ items: labDefaultsKind.schema });
const tags = items(z.object({ tag: z.string(), count: z.int() }));
const kinds = items(
  z.object({
    kind: z.enum(KIND_NAMES as [string, ...string[]]),
    title: z.string(),
    belongsTo: z.string(),
    travels: z.enum(['file', 'entry']).nullable(),
  }),
);
const imported = z.object({ items: z.array(importItem), applied: z.boolean() });
const photos = z.object({
  items: z.array(attachment),
  total: z.int(),
  page: z.int(),
  pageSize: z.int(),
});

const runPage = z.object({
  items: z.array(keptRun),
  total: z.int(),
  page: z.int(),
  pageSize: z.int(),
});

const M = '/api/machines/{id}';
const A = `${M}/attachments`;
const R = `${M}/runs`;
const C = `${M}/calibrations`;
const E = `${M}/editions`;
const calibrationPage = runPage.extend({ items: z.array(keptCalibration) });
const editionPage = runPage.extend({ items: z.array(editionSummary) });

const D = '/api/documents/{kind}/{id}';

/** The whole HTTP interface: a route that is not here is found by a test. */
export const ROUTES: readonly RouteDescription[] = [
  get('/api/backup', 'Daily backups that are there', backupsAnswer),
  get('/api/backup/now.tar', 'All that is kept, in one file', 'application/x-tar'),
  post(
    '/api/backup/restore',
    'Puts a backup in the place of what is kept, which is set aside',
    restoredAnswer,
    'file',
  ),
  get('/api/session', 'Who is signed in, and whether that is needed', sessionAnswer),
  post('/api/session', 'Signs in', sessionAnswer, signInBody),
  { ...get('/api/session', 'Signs out', sessionAnswer), method: 'delete' },
  get('/api/sessions', 'Who is signed in where', sessionsAnswer),
  { ...get('/api/sessions/{session}', 'Ends a session', sessionsAnswer), method: 'delete' },
  get('/api/health', 'Whether the library can be read, and the room left for it', healthAnswer),
  { ...get('/api/machines', 'The library, page by page', machinePage), query: listQuery },
  { ...post('/api/machines', 'A new machine', machine, recordBody), status: 201 },
  get('/api/machines/tags', 'Tags in use', tags),
  post(
    '/api/machines/tags',
    'Puts tags on machines and takes others off',
    z.object({ machines: z.int() }),
    tagChange,
  ),
  get(M, 'A machine', bandedMachine),
  locked('put', M, 'Replaces its record', machine, recordBody),
  locked('post', `${M}/put-aside`, 'Puts it aside', machine),
  locked('post', `${M}/bring-back`, 'Brings it back', machine),
  get(`${M}/family`, 'Variants, units and states of its model', items(familyMember)),
  { ...post(`${M}/states`, 'A new state of its unit', machine, named), status: 201 },
  { ...post(`${M}/units`, 'Another unit of its variant', machine, unitFacts), status: 201 },
  { ...post(`${M}/variants`, 'A sibling variant', machine, named), status: 201 },
  locked('put', `${M}/state-name`, 'Names its state', machine, named),
  locked('put', `${M}/unit`, 'Replaces what is known of its unit', unit, unitFacts),
  { ...get(`${M}/revisions`, 'Revisions of its record', revisionPage), query: historyQuery },
  get(`${M}/revisions/{revision}`, 'Its record as it was', oldRecord),
  get(`${M}/log`, 'The log of its opening', keptLog),
  locked('put', `${M}/log`, 'Replaces the log', keptLog, z.strictObject({ log: openUpLog })),
  get(`${M}/log/siblings`, 'Logs of the same model', items(logSibling)),
  { ...get(`${M}/guide.html`, 'The log as a guide', 'text/html'), query: guideQuery },
  {
    ...get(`${M}/guide.zip`, 'The guide as Markdown with its photos', 'application/zip'),
    query: guideQuery,
  },
  { ...get(`${M}/report`, 'The verdict as a report for readers', '*/*'), query: reportQuery },
  {
    ...get(`${M}/peers`, 'Machines of its kind, and its place among them', peersAnswer),
    query: peersQuery,
  },
  { ...get(E, 'Reports as they were published', editionPage), query: editionListQuery },
  { ...post(E, 'Publishes the next one', editionAnswer, editionBody), status: 201 },
  get(`${E}/{number}`, 'One of them, with what is new in it', editionAnswer),
  get(`${E}/{number}/edition.zip`, 'All its files', 'application/zip'),
  { ...get(`${E}/{number}/files/{name}`, 'One of its files', '*/*'), query: editionFileQuery },
  {
    ...get('/api/site.zip', 'The library as pages for a web server', 'application/zip'),
    query: siteQuery,
  },
  get(
    '/api/learned',
    'What the machines teach about the next one',
    z.object({ learned: learnedAnswer.nullable() }),
  ),
  get(
    '/api/learned/wear',
    'How fast dust gathers and interface material ages, from runs before and after renewals',
    wearAnswer,
  ),
  {
    method: 'post',
    path: '/api/learned',
    summary:
      'Learns from all machines that stand on runs: a line of JSON for each, then what was learned',
    answer: 'application/x-ndjson',
  },
  {
    ...get(
      '/api/guesses',
      'Guesses beside the answers, and how well each person guesses',
      guessPage,
    ),
    query: guessQuery,
  },
  { ...get(A, 'Photos and papers', photos), query: attachmentListQuery },
  { ...post(A, 'Adds a photo or paper', attachment, 'file'), query: addQuery, status: 201 },
  locked('put', `${A}/{file}`, 'Replaces what is known of it', attachment, attachmentFacts),
  locked('post', `${A}/{file}/put-aside`, 'Puts it aside', attachment),
  locked('post', `${A}/{file}/bring-back`, 'Brings it back', attachment),
  get(`${A}/{file}/content`, 'The photo as it is kept, boxes apart', 'image/*'),
  get(`${A}/{file}/copy`, 'A copy with its boxes burned in', 'image/*'),
  get(`${A}/{file}/small`, 'A small picture', 'image/webp'),
  get(`${A}/{file}/view`, 'The photo as large as a screen, boxes apart', 'image/webp'),
  get(
    `${A}/{file}/tiles/{column}/{row}`,
    'A piece of 512 px at full size, boxes apart',
    'image/jpeg',
  ),
  post(`${A}/{file}/measures`, 'What its marks measure', keptMeasures, photoMarksSchema),
  {
    ...post(`${A}/{file}/proposals`, 'Parts found in it', markProposals, photoMarksSchema),
    query: proposalQuery,
  },
  { ...get(R, 'Runs on the bench', runPage), query: runListQuery },
  { ...post(R, 'A new run', keptRun, runSchema), status: 201 },
  {
    ...post(`${R}/{run}/logs`, 'Takes a log of it', takenLog, 'file'),
    query: logQuery,
    status: 201,
  },
  post(
    `${R}/{run}/layout`,
    'Reads a log by what is said of it, and remembers that',
    takenLog,
    layoutBody,
  ),
  get(`${R}/steady`, 'What each run sustained', steadyOfRuns),
  get(`${R}/usual`, 'What other machines did under the same loads at such watts', usualOfRuns),
  get(`${R}/fan-sweep`, 'Fan speeds against level, out of all runs', fanSweepAnswer),
  get(`${R}/{run}/why-outside`, 'What would bring it back into its band', whyOutsideAnswer),
  get(`${R}/{run}/run.zip`, 'The run with its logs and samples', 'application/zip'),
  {
    ...post(`${R}/import`, 'Takes a run from a zip, or its document alone', keptRun, 'file'),
    status: 201,
  },
  { ...post(`${R}/{run}/take`, 'Takes a file of the inbox', takenLog, takeBody), status: 201 },
  post(`${R}/{run}/foretell`, 'Foretells it before its first log', keptRun, foretellBody),
  get(`${R}/{run}/analysis`, 'What its logs say', z.looseObject({ format: z.string() })),
  {
    ...get(`${R}/{run}/series`, 'Its channels, least and greatest by pixel', series),
    query: seriesQuery,
  },
  {
    ...get('/api/runs', 'Every run against what its record foretells', residualPage),
    query: residualQuery,
  },
  get('/api/inbox', 'What loggers wrote into the folder that is watched', inbox),
  { ...get(C, 'What runs taught of a machine', calibrationPage), query: calibrationListQuery },
  { ...post(C, 'Fits it to its runs', keptCalibration, z.strictObject({})), status: 201 },
  get(`${C}/in-use`, 'What its estimate stands on', calibrationFigures.nullable()),
  {
    method: 'put',
    path: `${C}/in-use`,
    summary: 'Lets its estimate stand on a version, or on none',
    body: versionInUse,
    answer: calibrationFigures.nullable(),
  },
  get('/api/settings', 'What the laboratory decided', labSettingsKind.schema),
  locked('put', '/api/settings/{key}', 'Replaces one setting', labSettingsKind.schema, z.unknown()),
  get('/api/defaults', 'The laboratory’s own defaults', defaultItems),
  locked('put', '/api/defaults/{key}', 'Sets one of them', defaultItems, labDefaultSchema),
  locked('delete', '/api/defaults/{key}', 'Back to the built-in one', defaultItems),
  get('/api/documents', 'Kinds of documents', kinds),
  get(D, 'A document of any kind', documentAnswer),
  locked('put', D, 'Replaces it', documentAnswer, valueBody),
  locked('post', `${D}/put-aside`, 'Puts it aside', documentAnswer),
  locked('post', `${D}/bring-back`, 'Brings it back', documentAnswer),
  { ...get(`${D}/revisions`, 'Its revisions', revisionPage), query: historyQuery },
  get(`${D}/revisions/{revision}`, 'As it was', oldDocument),
  locked('post', `${D}/revisions/{revision}/restore`, 'Steps back to a revision', documentAnswer),
  get(`${D}/export`, 'A document as a file', 'application/json'),
  get('/api/exchange/machines/{id}.json', 'A record as a file', recordSchema),
  get('/api/exchange/{table}.csv', 'A row per machine, or per part', 'text/csv'),
  get('/api/exchange/library.zip', 'The whole library', 'application/zip'),
  {
    ...post('/api/exchange/import', 'What a file would bring, or brings', imported, 'file'),
    query: importQuery,
  },
];

function get(path: string, summary: string, answer: RouteDescription['answer']): RouteDescription {
  return { method: 'get', path, summary, answer };
}

function post(
  path: string,
  summary: string,
  answer: RouteDescription['answer'],
  body: NonNullable<RouteDescription['body']>,
): RouteDescription {
  return { method: 'post', path, summary, answer, body };
}

function locked(
  method: 'put' | 'post' | 'delete',
  path: string,
  summary: string,
  answer: RouteDescription['answer'],
  body?: RouteDescription['body'],
): RouteDescription {
  return { method, path, summary, answer, lock: true, ...(body ? { body } : {}) };
}
