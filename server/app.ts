import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { attachmentRoutes } from './attachments/attachmentRoutes';
import { backupRoutes, type Upkeep } from './backup/backupRoutes';
import { documentRoutes } from './documents/documentRoutes';
import { healthOf } from './health';
import { exchangeRoutes } from './exchange/exchangeRoutes';
import { createImporter } from './exchange/importPlan';
import { defaultRoutes } from './laboratory/defaultRoutes';
import { settingRoutes } from './laboratory/settingRoutes';
import type { Library } from './library';
import { createMachineFamilies } from './machines/machineFamilies';
import { listRoute } from './machines/listRoute';
import { machineRoutes } from './machines/machineRoutes';
import { createMachineTags } from './machines/machineTags';
import { guideRoutes } from './openup/guideRoutes';
import { openUpRoutes } from './openup/openUpRoutes';
import { createOpenUpStore } from './openup/openUpStore';
import { learnedRoutes } from './learned/learnedRoutes';
import { guessRoutes } from './opinions/guessRoutes';
import { editionRoutes } from './reports/editionRoutes';
import { reportRoutes, siteQuery } from './reports/reportRoutes';
import { prepareSite } from './reports/prepareSite';
import { calibrationRoutes } from './runs/calibrationRoutes';
import { residualQuery, runRoutes } from './runs/runRoutes';
import { parse } from './security/parse';
import { requestLog } from './security/requestLog';
import { readBody, refuseNul } from './security/readBody';
import { LOOPBACK_ONLY, type Access } from './security/access';
import { createSessions } from './security/sessions';
import { hostGuard } from './security/hostGuard';
import { problemHandler, unknownRoute } from './security/problem';

/**
 * The HTTP application.
 *
 * @param library all that is kept, and what is computed of it
 * @param webFolder folder with the built interface, or null to serve the API alone
 * @param logger where unexpected errors go
 * @param access who may reach it; this machine alone by default
 * @param upkeep what is done around the library as a whole; without it there are no routes for that
 */
export function createApp(
  library: Library,
  webFolder: string | null,
  logger: Logger,
  upkeep: Upkeep | null = null,
  access: Access = LOOPBACK_ONLY,
): Express {
  const { db, documents, history, machines, list, attachments, watts } = library;
  const { runs, summaries, logs, takeRun, inbox, calibrations } = library;
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  // who asks is said by a proxy on this machine where there is one, and by nobody else
  app.set('trust proxy', access.behindProxy ? 'loopback' : false);
  app.use('/api', requestLog(logger));
  app.use(hostGuard(access.names));
  app.use(refuseNul);
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          // charts and drag handles set style attributes
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'", 'data:'],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: access.tls !== null,
    }),
  );
  const sessions = createSessions(access);
  app.use('/api', sessions.guard);
  app.get('/api/machines', listRoute(list));
  app.use(compression());

  const api = express.Router();
  api.use((_req, res, next) => {
    res.set('Cache-Control', 'no-store');
    next();
  });
  api.use(readBody);
  api.get('/health', async (_req, res) => {
    res.json(await healthOf(db));
  });
  api.use(sessions.routes);
  if (upkeep) api.use('/backup', backupRoutes(db.folder, upkeep));
  api.use('/documents', documentRoutes(documents, history));
  api.use('/machines/:id/attachments', attachmentRoutes(attachments));
  api.use('/machines/:id/runs', runRoutes(runs, summaries, library.usualRuns, takeRun, db.folder));
  api.get('/runs', async (req, res) => {
    res.json(await summaries.residuals(parse(residualQuery, req.query).page));
  });
  api.get('/inbox', async (_req, res) => {
    res.json(await inbox.list());
  });
  api.use('/machines/:id/calibrations', calibrationRoutes(calibrations));
  api.use('/machines/:id/log', openUpRoutes(createOpenUpStore(db, documents)));
  api.use('/machines/:id', guideRoutes(machines, documents, attachments));
  api.use(
    '/machines/:id',
    reportRoutes(
      documents,
      list,
      library.gatherReport,
      library.calibratedMachines,
      library.makeReports,
    ),
  );
  api.use('/machines/:id/editions', editionRoutes(library.editions));
  api.get('/site.zip', async (req, res) => {
    const asked = parse(siteQuery, req.query);
    const write = await prepareSite(
      {
        documents,
        list,
        gather: library.gatherReport,
        make: library.makeReports,
        calibrated: library.calibratedMachines,
      },
      asked,
    );
    res.attachment('site.zip').type('application/zip');
    await write(res);
  });
  api.use('/learned', learnedRoutes(library.teachers, library.renewals));
  api.use('/guesses', guessRoutes(library.guesses));
  api.use('/settings', settingRoutes(documents));
  api.use('/defaults', defaultRoutes(documents));
  const families = createMachineFamilies(db, documents);
  api.use('/machines', machineRoutes(machines, families, history, createMachineTags(db), watts));
  const importer = createImporter(
    db,
    machines,
    documents,
    attachments,
    takeRun,
    library.editionTravel,
  );
  api.use(
    '/exchange',
    exchangeRoutes(
      db,
      machines,
      importer,
      attachments,
      documents,
      watts,
      { runs, summaries, logs, editions: library.editionTravel },
      library.parseText,
    ),
  );
  api.use(unknownRoute);
  app.use('/api', api);

  if (webFolder) {
    app.use(
      '/assets',
      express.static(join(webFolder, 'assets'), { immutable: true, maxAge: '1y' }),
    );
    app.use(express.static(webFolder, { index: false }));
    app.get(/^\/(?!api(?:\/|$)|assets\/)/, (_req, res) => {
      res.set('Cache-Control', 'no-cache').sendFile(join(webFolder, 'index.html'));
    });
  }
  app.use(unknownRoute);
  app.use(problemHandler(logger));
  return app;
}
