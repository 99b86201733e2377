import { Router } from 'express';
import { Problem } from '../security/problem';
import type { RenewalStore } from './renewalStore';
import type { TeacherStore } from './teacherStore';

/**
 * Routes under /api/learned: what the machines of the library teach about the next one. Learning anew answers with a line for each machine
 * as it is done, the last one with what was learned or why nothing was.
 */
export function learnedRoutes(teachers: TeacherStore, renewals: RenewalStore): Router {
  const router = Router();

  router.get('/', (_req, res) => {
    res.json({ learned: teachers.last() });
  });

  /** How fast dust gathers and interface material ages, from runs before and after renewals. */
  router.get('/wear', async (_req, res) => {
    const gone = new AbortController();
    res.on('close', () => gone.abort());
    res.json(await renewals(gone.signal));
  });

  router.post('/', async (_req, res) => {
    const gone = new AbortController();
    res.on('close', () => gone.abort());
    const line = (value: object) => {
      if (res.destroyed) return;
      if (!res.headersSent) res.type('application/x-ndjson');
      res.write(`${JSON.stringify(value)}\n`);
      res.flush();
    };
    try {
      line({ learned: await teachers.learn(gone.signal, (done, of) => line({ done, of })) });
    } catch (cause) {
      // what began as lines ends as one
      if (!(cause instanceof Problem) || !res.headersSent) throw cause;
      line({ problem: cause.message });
    }
    res.end();
  });

  return router;
}
