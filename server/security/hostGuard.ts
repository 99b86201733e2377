import type { RequestHandler } from 'express';
import { Problem } from './problem';

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

function hostname(host: string): string {
  return host.replace(/:\d+$/, '').toLowerCase();
}

/**
 * Refuses requests that name another host or come from a page of another origin, so that no web page the user happens to
 * visit can reach the library.
 *
 * @param names hosts that this server answers as
 */
export const hostGuard =
  (names: ReadonlySet<string>): RequestHandler =>
  (req, _res, next) => {
    const host = req.headers.host ?? '';
    if (!names.has(hostname(host))) {
      throw new Problem(403, 'Foreign host', 'this server answers on its own names only');
    }
    const origin = req.headers.origin;
    if (origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`) {
      throw new Problem(403, 'Foreign origin', 'this server answers to its own pages only');
    }
    const site = req.headers['sec-fetch-site'];
    const mode = req.headers['sec-fetch-mode'];
    // a page that is gone to may come from anywhere, but goes nowhere that changes something
    const navigates = mode === 'navigate' && SAFE.has(req.method);
    if (site === 'cross-site' && !navigates) {
      throw new Problem(403, 'Foreign origin', 'this server answers to its own pages only');
    }
    if (mode === 'navigate' && !navigates && origin === undefined) {
      throw new Problem(
        403,
        'Foreign origin',
        'what changes something comes from its own pages only',
      );
    }
    next();
  };
