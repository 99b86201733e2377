import { toast } from 'sonner';
import { TAKE_OVER } from './kept';

/**
 * Lets the browser keep the whole program, steps never visited too, and what a machine's file needs, so that it opens again
 * while the server is away. A new build waits until somebody asks for it, or until every page of the old one is closed, so that
 * no page is made of old parts and new ones. Where the browser cannot, all else works as before.
 */
export async function startOffline(): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  try {
    const registration = await navigator.serviceWorker.register('/offline.js');
    offer(registration);
    // what this page read before the worker was there is kept too
    const { active } = await navigator.serviceWorker.ready;
    const read = performance.getEntriesByType('resource').map((e) => e.name);
    active?.postMessage({ keep: read.filter((url) => url.includes('/api/')) });
    registration.addEventListener('updatefound', () => {
      registration.installing?.addEventListener('statechange', () => offer(registration));
    });
  } catch {
    // a browser that refuses it has its reasons, such as a private window
  }
}

let offered = false;

/** Says that a new build is there; what was typed is kept in the browser over the reload. */
function offer({ waiting }: ServiceWorkerRegistration): void {
  // the first worker of all takes over nobody's page
  if (!waiting || !navigator.serviceWorker.controller || offered) return;
  offered = true;
  navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), {
    once: true,
  });
  toast('A new version of the program is there.', {
    duration: Infinity,
    action: { label: 'Use it', onClick: () => waiting.postMessage(TAKE_OVER) },
  });
}
