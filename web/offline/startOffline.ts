/**
 * Lets the browser keep the program and what a machine's file needs, so that a page opened once opens again while the server is
 * away. Where the browser cannot, all else works as before.
 */
export async function startOffline(): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  try {
    await navigator.serviceWorker.register('/offline.js');
    const { active } = await navigator.serviceWorker.ready;
    const loaded = performance.getEntriesByType('resource').map((e) => e.name);
    active?.postMessage({ keep: loaded });
  } catch {
    // a browser that refuses it has its reasons, such as a private window
  }
}
