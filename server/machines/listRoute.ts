import type { RequestHandler } from 'express';
import { parse } from '../security/parse';
import { listQuery, type ListQuery } from './listQuery';
import type { MachineList } from './machineList';

/** Queries read once and known by the address that asked. */
const MAX_KNOWN = 1000;

/**
 * The library's list, which is asked for more than all else: it stands before compression and bodies,
 * and sends bytes that are kept as long as they hold.
 *
 * @param list the library as it is listed
 */
export function listRoute(list: MachineList): RequestHandler {
  const known = new Map<string, ListQuery>();
  return async (req, res) => {
    const read = () => {
      const before = known.get(req.url);
      if (before) return before;
      const query = parse(listQuery, req.query);
      if (known.size >= MAX_KNOWN) known.clear();
      known.set(req.url, query);
      return query;
    };
    const answer = await list.listJson(req.url, read);
    res.writeHead(200, {
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Length': answer.length,
      'Cache-Control': 'no-store',
    });
    res.end(answer);
  };
}
