import {
  createHandlerBoundToURL,
  precacheAndRoute,
  cleanupOutdatedCaches,
} from 'workbox-precaching';
import { KEPT_HEADER } from '../../api/keptHeader';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import {
  ANSWER_CACHE,
  MAX_ANSWERS,
  PAGE,
  requestKind,
  TAKE_OVER,
  TAKE_PAGES,
  type BuiltFile,
} from './kept';

declare const __BUILT_FILES__: BuiltFile[];

const scope = self as unknown as ServiceWorkerGlobalScope;

// the whole program of this build, steps never visited too; a new build brings a worker and a set of files of its own
precacheAndRoute(__BUILT_FILES__);
cleanupOutdatedCaches();
registerRoute(
  new NavigationRoute(createHandlerBoundToURL(PAGE), { denylist: [/^\/api\//, /^\/assets\//] }),
);

// a page that is open goes on with the parts it was made of: a new build waits until they are closed, or until somebody asks
scope.addEventListener('message', (event) => {
  if (event.data === TAKE_OVER) {
    void scope.skipWaiting();
    return;
  }
  if (event.data === TAKE_PAGES) {
    event.waitUntil(scope.clients.claim());
    return;
  }
  const { keep = [] } = event.data as { keep?: string[] };
  event.waitUntil(keepRead(keep));
});
scope.addEventListener('activate', (event) => event.waitUntil(scope.clients.claim()));

const kindOf = (request: Request) =>
  requestKind(request.method, new URL(request.url), scope.location.origin);
registerRoute(
  ({ request }) => kindOf(request) === 'answer',
  ({ request }) => answer(request),
);
registerRoute(
  ({ request }) => kindOf(request) === 'write',
  ({ request }) => write(request),
  'PUT',
);

/** Answers that a page read past this worker, in place of older ones. */
async function keepRead(urls: readonly string[]): Promise<void> {
  const cache = await caches.open(ANSWER_CACHE);
  for (const url of new Set(urls.slice(-MAX_ANSWERS))) {
    if (requestKind('GET', new URL(url), scope.location.origin) !== 'answer') continue;
    const response = await fetch(url).catch(() => null);
    if (response?.ok) await keepAnswer(cache, url, response);
  }
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

/** What a write is answered with is what reading would now answer. */
async function write(request: Request): Promise<Response> {
  const response = await fetch(request);
  if (response.ok) {
    await keepAnswer(await caches.open(ANSWER_CACHE), request.url, response.clone());
  }
  return response;
}

async function keepAnswer(cache: Cache, url: string, response: Response): Promise<void> {
  await cache.put(url, response);
  const keys = await cache.keys();
  for (const key of keys.slice(0, Math.max(0, keys.length - MAX_ANSWERS))) await cache.delete(key);
}
