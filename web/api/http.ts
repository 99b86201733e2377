import { KEPT_HEADER } from './keptHeader';
import { SESSION, signInIsNeeded } from './signedIn';
import { answerWas } from './serverSeen';

/** An error the server explained, or the lack of a server (status 0). */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly body: Record<string, unknown> = {},
  ) {
    super(message);
  }
}

export interface RequestOptions {
  method?: string;
  /** Sent as JSON, a file as the bytes it holds. */
  body?: unknown;
  ifMatch?: number;
  /** The sender's own name for a write: sent twice, it is taken once. */
  writeId?: string;
  /** It goes on when the page is left; for small bodies alone. */
  keepalive?: boolean;
  signal?: AbortSignal;
}

const writing = new Set<() => void>();

/** Told whenever something is about to be changed on the server by this page. */
export function onWrite(listener: () => void): void {
  writing.add(listener);
}

/** Where the server wants to know who it is, that is asked; what was typed is kept as if the server were away, and sent after. */
function refuseUnlessSignedIn(status: number, url: string): void {
  if (status !== 401 || url === SESSION) return;
  signInIsNeeded();
  throw new HttpProblem(0, 'sign in first');
}

async function send(
  url: string,
  options: RequestOptions,
  headers: Record<string, string>,
): Promise<Response> {
  const file = typeof Blob !== 'undefined' && options.body instanceof Blob ? options.body : null;
  if (file) headers['Content-Type'] = 'application/octet-stream';
  else if (options.body !== undefined) headers['Content-Type'] = 'application/json';
  if (options.ifMatch !== undefined) headers['If-Match'] = `"${options.ifMatch}"`;
  if (options.writeId !== undefined) headers['Idempotency-Key'] = options.writeId;
  if ((options.method ?? 'GET') !== 'GET') for (const tell of writing) tell();
  let response: Response;
  try {
    response = await fetch(url, {
      method: options.method ?? 'GET',
      headers,
      ...(options.body === undefined ? {} : { body: file ?? JSON.stringify(options.body) }),
      ...(options.signal ? { signal: options.signal } : {}),
      ...(options.keepalive ? { keepalive: true } : {}),
    });
  } catch (cause) {
    if ((cause as Error).name === 'AbortError') throw cause;
    throw new HttpProblem(0, 'the server does not answer');
  }
  if (response.ok) {
    answerWas(response.headers.has(KEPT_HEADER));
    return response;
  }
  const body = (await response.json().catch(() => ({}))) as Record<string, unknown>;
  refuseUnlessSignedIn(response.status, url);
  throw new HttpProblem(
    response.status,
    String(body['detail'] ?? `the server answered ${response.status}`),
    body,
  );
}

/**
 * Calls the API and reads JSON.
 *
 * @throws HttpProblem with status 0 where the server is away, else with the problem document's detail
 */
export async function fetchJson<T>(url: string, options: RequestOptions = {}): Promise<T> {
  const response = await send(url, options, {});
  return (await response.json().catch(() => ({}))) as T;
}

/**
 * Calls the API and reads an answer of one JSON document per line, each as it comes.
 *
 * @param each told of every line
 * @throws HttpProblem as {@link fetchJson} does, also where the answer is cut off
 */
export async function fetchLines<T>(
  url: string,
  options: RequestOptions,
  each: (line: T) => void,
): Promise<void> {
  const response = await send(url, options, { Accept: 'application/x-ndjson' });
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (;;) {
    let part: ReadableStreamReadResult<string>;
    try {
      part = await reader.read();
    } catch (cause) {
      if ((cause as Error).name === 'AbortError') throw cause;
      throw new HttpProblem(0, 'the answer of the server was cut off');
    }
    if (part.done) break;
    const lines = (rest + part.value).split('\n');
    rest = lines.pop()!;
    for (const line of lines) if (line) each(JSON.parse(line) as T);
  }
  if (rest) throw new HttpProblem(0, 'the answer of the server was cut off');
}

/**
 * Sends a file and tells how much of it is on its way; what browsers' fetch does not.
 *
 * @param told share of the bytes that are sent, 0…1
 * @throws HttpProblem as {@link fetchJson} does; an AbortError where it was given up
 */
export async function sendFile<T>(
  url: string,
  file: Blob,
  told: (share: number) => void,
  signal?: AbortSignal,
): Promise<T> {
  for (const tell of writing) tell();
  const request = new XMLHttpRequest();
  const answer = await new Promise<{ status: number; text: string }>((resolve, reject) => {
    const gone = () => reject(new DOMException('given up', 'AbortError'));
    if (signal?.aborted) {
      gone();
      return;
    }
    signal?.addEventListener('abort', () => request.abort(), { once: true });
    request.upload.onprogress = (e) => told(e.total > 0 ? e.loaded / e.total : 0);
    request.onload = () => resolve({ status: request.status, text: request.responseText });
    request.onabort = gone;
    request.onerror = () => reject(new HttpProblem(0, 'the server does not answer'));
    request.open('POST', url);
    request.setRequestHeader('Content-Type', 'application/octet-stream');
    request.send(file);
  });
  let body: unknown = {};
  try {
    body = JSON.parse(answer.text);
  } catch {
    // an answer that is no JSON is told by its status alone
  }
  if (answer.status >= 200 && answer.status < 300) {
    answerWas(false);
    return body as T;
  }
  const problem = body as Record<string, unknown>;
  refuseUnlessSignedIn(answer.status, url);
  throw new HttpProblem(
    answer.status,
    String(problem['detail'] ?? `the server answered ${answer.status}`),
    problem,
  );
}
