import { toast } from 'sonner';
import { readPastWorker, TAKE_OVER, TAKE_PAGES } from './kept';

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
    const { active } = await navigator.serviceWorker.ready;
    if (active) keepWhatPassedBy(active);
    registration.addEventListener('updatefound', () => {
      registration.installing?.addEventListener('statechange', () => offer(registration));
    });
  } catch {
    // a browser that refuses it has its reasons, such as a private window
  }
}

/**
 * What this page reads past the worker is kept too: before the worker was there, while it took over, and where it took over before
 * this page could be taken, for which it is asked again.
 */
function keepWhatPassedBy(worker: ServiceWorker): void {
  new PerformanceObserver((list) => {
    const urls = readPastWorker(list.getEntries() as PerformanceResourceTiming[]);
    if (urls.length > 0) worker.postMessage({ keep: urls });
  }).observe({ type: 'resource', buffered: true });
  if (!navigator.serviceWorker.controller) worker.postMessage(TAKE_PAGES);
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
