import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { Router, type Request, type RequestHandler, type Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import { z } from 'zod';
import type { Access } from './access';
import { parse } from './parse';
import { isPassphrase, MOST_LENGTH } from './passphrase';
import { Problem } from './problem';
import { writtenBy } from './writer';

const COOKIE = 'zugluft_session';
const IDLE_MS = 30 * 86_400_000;
const MAX_SESSIONS = 1000;
const TRIES = 10;
const TRIES_WITHIN_MS = 15 * 60_000;
const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

export const signInBody = z.strictObject({
  passphrase: z.string().min(1, 'is empty').max(MOST_LENGTH, `at most ${MOST_LENGTH} characters`),
  /** Who it is: each revision says so. */
  name: z.string().trim().min(1, 'needs a name').max(60, 'at most 60 characters'),
});
const role = z.enum(['member', 'guest']);
export const sessionAnswer = z.object({
  /** Whether this server wants to be signed in to. */
  needed: z.boolean(),
  name: z.string().nullable(),
  role: role.nullable(),
});
export const sessionsAnswer = z.object({
  items: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      role,
      since: z.string(),
      seen: z.string(),
      address: z.string(),
      /** The one that asks. */
      own: z.boolean(),
    }),
  ),
});

interface Session {
  id: string;
  name: string;
  role: z.infer<typeof role>;
  since: number;
  seen: number;
  address: string;
}

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');
const tokenOf = (req: Request): string | null =>
  new RegExp(`(?:^|;\\s*)${COOKIE}=([\\w-]{43})(?:;|$)`).exec(req.headers.cookie ?? '')?.[1] ??
  null;

/**
 * Who is signed in. Sessions live as long as the program: of each only the hash of its token is held, and the token is a cookie that
 * no script reads and no other site sends.
 */
export function createSessions({ passphrase, guestPassphrase, tls, behindProxy }: Access) {
  const sessions = new Map<string, Session>();
  const find = (req: Request): Session | null => {
    const token = tokenOf(req);
    const key = token === null ? '' : hashOf(token);
    const session = sessions.get(key);
    if (!session) return null;
    if (Date.now() - session.seen > IDLE_MS) {
      sessions.delete(key);
      return null;
    }
    session.seen = Date.now();
    return session;
  };
  const cookie = (req: Request) => ({
    httpOnly: true,
    sameSite: 'strict' as const,
    path: '/',
    secure: tls !== null || (behindProxy && req.secure),
  });
  const told = (res: Response, session: Session | null) =>
    res.json({
      needed: passphrase !== null,
      name: session?.name ?? null,
      role: session?.role ?? null,
    });

  /** Lets in who is signed in; guests may only read. What is written is written in their name. */
  const guard: RequestHandler = (req, _res, next) => {
    if (passphrase === null || req.path === '/session' || req.path === '/health') {
      next();
      return;
    }
    const session = find(req);
    if (!session) throw new Problem(401, 'Sign in', 'sign in first');
    if (session.role === 'guest' && !SAFE.has(req.method)) {
      throw new Problem(403, 'Read only', 'guests may look at everything and change nothing');
    }
    writtenBy(session.name, next);
  };

  const limited = rateLimit({
    windowMs: TRIES_WITHIN_MS,
    limit: TRIES,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: () => {
      throw new Problem(
        429,
        'Too many tries',
        'too many passphrases were wrong: wait a quarter of an hour',
      );
    },
  });

  const signIn: RequestHandler = async (req, res) => {
    if (passphrase === null) {
      told(res, null);
      return;
    }
    const said = parse(signInBody, req.body);
    const isMember = await isPassphrase(said.passphrase, passphrase);
    const isGuest =
      !isMember &&
      guestPassphrase !== null &&
      (await isPassphrase(said.passphrase, guestPassphrase));
    if (!isMember && !isGuest) {
      throw new Problem(401, 'Wrong passphrase', 'this is not the passphrase', {
        errors: [{ path: 'passphrase', message: 'is not the one of this laboratory' }],
      });
    }
    // the one not used for longest makes room
    if (sessions.size >= MAX_SESSIONS) {
      const [oldest] = [...sessions].sort(([, a], [, b]) => a.seen - b.seen)[0]!;
      sessions.delete(oldest);
    }
    const token = randomBytes(32).toString('base64url');
    const session: Session = {
      id: randomUUID(),
      name: said.name,
      role: isMember ? 'member' : 'guest',
      since: Date.now(),
      seen: Date.now(),
      address: req.ip ?? '',
    };
    const before = tokenOf(req);
    if (before !== null) sessions.delete(hashOf(before));
    sessions.set(hashOf(token), session);
    res.cookie(COOKIE, token, { ...cookie(req), maxAge: IDLE_MS });
    told(res, session);
  };

  /** Routes under /api/session and /api/sessions. */
  const routes = Router();
  routes.get('/session', (req, res) => {
    told(res, find(req));
  });
  routes.post('/session', limited, signIn);
  routes.delete('/session', (req, res) => {
    const token = tokenOf(req);
    if (token !== null) sessions.delete(hashOf(token));
    res.clearCookie(COOKIE, cookie(req));
    told(res, null);
  });
  const tellAll = (req: Request, res: Response) => {
    const own = find(req);
    const at = (ms: number) => new Date(ms).toISOString();
    const items = [...sessions.values()].map((s) => ({
      id: s.id,
      name: s.name,
      role: s.role,
      since: at(s.since),
      seen: at(s.seen),
      address: s.address,
      own: s.id === own?.id,
    }));
    res.json({ items });
  };
  routes.get('/sessions', tellAll);
  routes.delete('/sessions/:session', (req, res) => {
    const id = parse(z.uuid('is no session'), req.params.session);
    const entry = [...sessions].find(([, s]) => s.id === id);
    if (!entry) throw new Problem(404, 'Not found', 'there is no such session');
    sessions.delete(entry[0]);
    tellAll(req, res);
  });
  return { guard, routes };
}
