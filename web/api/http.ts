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

/**
 * Calls the API and reads JSON.
 *
 * @throws HttpProblem with status 0 where the server is away, else with the problem document's detail
 */
export async function fetchJson<T>(
  url: string,
  options: {
    method?: string;
    /** Sent as JSON, a file as the bytes it holds. */
    body?: unknown;
    ifMatch?: number;
    signal?: AbortSignal;
  } = {},
): Promise<T> {
  const headers: Record<string, string> = {};
  const file = typeof Blob !== 'undefined' && options.body instanceof Blob ? options.body : null;
  if (file) headers['Content-Type'] = 'application/octet-stream';
  else if (options.body !== undefined) headers['Content-Type'] = 'application/json';
  if (options.ifMatch !== undefined) headers['If-Match'] = `"${options.ifMatch}"`;
  let response: Response;
  try {
    response = await fetch(url, {
      method: options.method ?? 'GET',
      headers,
      ...(options.body === undefined ? {} : { body: file ?? JSON.stringify(options.body) }),
      ...(options.signal ? { signal: options.signal } : {}),
    });
  } catch (cause) {
    if ((cause as Error).name === 'AbortError') throw cause;
    throw new HttpProblem(0, 'the server does not answer');
  }
  const body = (await response.json().catch(() => ({}))) as Record<string, unknown>;
  if (!response.ok) {
    throw new HttpProblem(
      response.status,
      String(body['detail'] ?? `the server answered ${response.status}`),
      body,
    );
  }
  return body as T;
}
