import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { attachmentRoutes } from './attachments/attachmentRoutes';
import { createAttachmentStore } from './attachments/attachmentStore';
import type { Database } from './database/openDatabase';
import { defaultRoutes } from './defaults/defaultRoutes';
import { createDefaultStore } from './defaults/defaultStore';
import { exchangeRoutes } from './exchange/exchangeRoutes';
import { createImporter } from './exchange/importPlan';
import { createMachineFamilies } from './machines/machineFamilies';
import { createMachineHistory } from './machines/machineHistory';
import { machineRoutes } from './machines/machineRoutes';
import { createMachineTags } from './machines/machineTags';
import { createMachineStore } from './machines/machineStore';
import { hostGuard } from './security/hostGuard';
import { openUpRoutes } from './openup/openUpRoutes';
import { createOpenUpStore } from './openup/openUpStore';
import { guideRoutes } from './openup/guideRoutes';
import { settingRoutes } from './settings/settingRoutes';
import { createSettingStore } from './settings/settingStore';
import { problemHandler, unknownRoute } from './security/problem';

const MAX_BODY = '1mb';

/**
 * The HTTP application.
 *
 * @param db an open library
 * @param webFolder folder with the built interface, or null to serve the API alone
 * @param logger where unexpected errors go
 */
export function createApp(db: Database, webFolder: string | null, logger: Logger): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  app.use(hostGuard);
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
      strictTransportSecurity: false,
    }),
  );
  app.use(compression());

  const api = express.Router();
  api.use((_req, res, next) => {
    res.set('Cache-Control', 'no-store');
    next();
  });
  api.use(express.json({ limit: MAX_BODY, strict: true }));
  api.get('/health', (_req, res) => {
    res.json({ ok: true });
  });
  const defaults = createDefaultStore(db);
  const machines = createMachineStore(db, defaults.current);
  const attachments = createAttachmentStore(db);
  api.use('/machines/:id/attachments', attachmentRoutes(attachments));
  const logs = createOpenUpStore(db);
  const settings = createSettingStore(db);
  api.use('/machines/:id/log', openUpRoutes(logs));
  api.use('/machines/:id', guideRoutes(machines, logs, attachments, settings));
  api.use('/settings', settingRoutes(settings));
  api.use(
    '/machines',
    machineRoutes(
      machines,
      createMachineFamilies(db, defaults.current),
      createMachineHistory(db),
      createMachineTags(db),
    ),
  );
  api.use(
    '/defaults',
    defaultRoutes(defaults, () => {
      machines.recompute().catch((cause: unknown) => logger.error(cause));
    }),
  );
  api.use(
    '/exchange',
    exchangeRoutes(
      db,
      machines,
      createImporter(db, machines, defaults.current, attachments, logs),
      attachments,
      logs,
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
