/** What the page keeps of answers, so that it opens again while the server is away. */

export const ANSWER_CACHE = 'zugluft-answers-2';
/** The page itself among the files of a build. */
export const PAGE = '/index.html';
/** Asks a new build that waits to take over. */
export const TAKE_OVER = 'take over';
/** Asks the worker to take pages that were opening when it took over. */
export const TAKE_PAGES = 'take pages';
export const MAX_ANSWERS = 400;

/** A file of a build; hashed names need no revision of their own. */
export interface BuiltFile {
  url: string;
  revision: string | null;
}

const ID = '[0-9a-f]{8}-[0-9a-f-]{27}';
const DOCUMENT = `documents/[a-z]+/(${ID}|laboratory)`;
const KEEPABLE = new RegExp(
  `^/api/(settings|defaults|${DOCUMENT}|machines/${ID}(/(log|log/siblings|family|attachments))?)$`,
);
const WHOLE = new RegExp(`^/api/(${DOCUMENT}|machines/${ID}(/log)?)$`);

/** What is done with a request: answers that a machine's file needs are kept, all else goes its way. */
export function requestKind(
  method: string,
  url: URL,
  origin: string,
): 'answer' | 'write' | 'other' {
  if (url.origin !== origin || !KEEPABLE.test(url.pathname)) return 'other';
  if (method === 'GET') return 'answer';
  return method === 'PUT' && WHOLE.test(url.pathname) ? 'write' : 'other';
}

/** Addresses of answers that came without the worker, which has kept those that came through it. */
export const readPastWorker = (
  entries: readonly Pick<PerformanceResourceTiming, 'name' | 'workerStart'>[],
): string[] =>
  entries.filter((e) => e.workerStart === 0 && e.name.includes('/api/')).map((e) => e.name);
