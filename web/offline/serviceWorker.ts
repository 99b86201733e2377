import {
  ANSWER_CACHE,
  KEPT_HEADER,
  MAX_ANSWERS,
  MAX_PROGRAM,
  PAGE,
  PROGRAM_CACHE,
  requestKind,
} from './kept';

const scope = self as unknown as ServiceWorkerGlobalScope;

scope.addEventListener('install', (event) => event.waitUntil(scope.skipWaiting()));
scope.addEventListener('activate', (event) => event.waitUntil(scope.clients.claim()));

// parts of the program that came before this worker did
scope.addEventListener('message', (event) => {
  const urls = (event.data as { keep?: string[] }).keep ?? [];
  event.waitUntil(
    (async () => {
      const cache = await caches.open(PROGRAM_CACHE);
      for (const url of urls.slice(0, MAX_PROGRAM)) {
        const kind = requestKind('GET', 'cors', new URL(url), scope.location.origin);
        if (kind !== 'program' || (await cache.match(url))) continue;
        await cache.add(url).catch(() => undefined);
      }
      await keepPage(await fetch('/').catch(() => null));
    })(),
  );
});

scope.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  switch (requestKind(request.method, request.mode, url, scope.location.origin)) {
    case 'page':
      return event.respondWith(page(request));
    case 'program':
      return event.respondWith(program(request));
    case 'answer':
      return event.respondWith(answer(request));
    case 'write':
      return event.respondWith(write(request));
    default:
      return;
  }
});

async function keepPage(response: Response | null): Promise<void> {
  if (!response?.ok || !response.headers.get('Content-Type')?.includes('text/html')) return;
  await (await caches.open(PROGRAM_CACHE)).put(PAGE, response.clone());
}

/** The page from the server; as it was last seen where the server is away. */
async function page(request: Request): Promise<Response> {
  try {
    const response = await fetch(request);
    await keepPage(response);
    return response;
  } catch (cause) {
    const kept = await caches.match(PAGE);
    if (kept) return kept;
    throw cause;
  }
}

/** Parts of the program never change under their name. */
async function program(request: Request): Promise<Response> {
  const cache = await caches.open(PROGRAM_CACHE);
  const kept = await cache.match(request);
  if (kept) return kept;
  const response = await fetch(request);
  if (response.ok) {
    await cache.put(request, response.clone());
    await dropOldest(cache, MAX_PROGRAM);
  }
  return response;
}

/** The server's answer; the one it gave last, marked as such, where it is away. */
async function answer(request: Request): Promise<Response> {
  const cache = await caches.open(ANSWER_CACHE);
  try {
    const response = await fetch(request);
    if (response.ok) await keepAnswer(cache, request.url, response.clone());
    return response;
  } catch (cause) {
    const kept = await cache.match(request.url);
    if (!kept) throw cause;
    const headers = new Headers(kept.headers);
    headers.set(KEPT_HEADER, '1');
    return new Response(kept.body, { status: 200, headers });
  }
}

async function write(request: Request): Promise<Response> {
  const response = await fetch(request);
  if (response.ok) {
    await keepAnswer(await caches.open(ANSWER_CACHE), request.url, response.clone());
  }
  return response;
}

async function keepAnswer(cache: Cache, url: string, response: Response): Promise<void> {
  await cache.put(url, response);
  await dropOldest(cache, MAX_ANSWERS);
}

async function dropOldest(cache: Cache, most: number): Promise<void> {
  const keys = await cache.keys();
  const old = keys.filter((k) => !k.url.endsWith(PAGE)).slice(0, Math.max(0, keys.length - most));
  for (const key of old) await cache.delete(key);
}
