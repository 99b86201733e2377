/** What the page keeps of the program and of answers, so that it opens again while the server is away. */

export const PROGRAM_CACHE = 'zugluft-program-1';
export const ANSWER_CACHE = 'zugluft-answers-1';
/** Name under which the page itself is kept. */
export const PAGE = '/index.html';
/** Says that an answer is an old one. */
export const KEPT_HEADER = 'X-Zugluft-Kept';

/** Old parts of the program are dropped beyond this. */
export const MAX_PROGRAM = 400;
export const MAX_ANSWERS = 400;

const ID = '[0-9a-f]{8}-[0-9a-f-]{27}';
const KEEPABLE = new RegExp(
  `^/api/(settings|defaults|machines/${ID}(/(log|log/siblings|family|attachments))?)$`,
);

/** What is done with a request: the page or a part of the program is kept, so are answers that a machine's file needs. */
export function requestKind(
  method: string,
  mode: string,
  url: URL,
  origin: string,
): 'page' | 'program' | 'answer' | 'write' | 'other' {
  if (url.origin !== origin) return 'other';
  if (url.pathname.startsWith('/api/')) {
    if (!KEEPABLE.test(url.pathname)) return 'other';
    if (method === 'GET') return 'answer';
    // what a write is answered with is what reading would now answer
    const whole = new RegExp(`^/api/machines/${ID}(/log)?$`).test(url.pathname);
    return method === 'PUT' && whole ? 'write' : 'other';
  }
  if (method !== 'GET') return 'other';
  if (mode === 'navigate') return 'page';
  return url.pathname.startsWith('/assets/') ? 'program' : 'other';
}
