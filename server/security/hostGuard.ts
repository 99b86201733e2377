import type { RequestHandler } from 'express';
import { Problem } from './problem';

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

function hostname(host: string): string {
  return host.replace(/:\d+$/, '').toLowerCase();
}

/**
 * Refuses requests that name another host or come from a page of another origin, so that no web page the user happens to
 * visit can reach the library through the loopback address.
 */
export const hostGuard: RequestHandler = (req, _res, next) => {
  const host = req.headers.host ?? '';
  if (!LOOPBACK.has(hostname(host))) {
    throw new Problem(403, 'Foreign host', 'this server answers on the loopback address only');
  }
  const origin = req.headers.origin;
  if (origin !== undefined && origin !== `http://${host}`) {
    throw new Problem(403, 'Foreign origin', 'this server answers to its own pages only');
  }
  const site = req.headers['sec-fetch-site'];
  const mode = req.headers['sec-fetch-mode'];
  if (site === 'cross-site' && mode !== 'navigate') {
    throw new Problem(403, 'Foreign origin', 'this server answers to its own pages only');
  }
  next();
};
