import { useRouteError } from 'react-router';
import { LIBRARY } from '../documents/places';

/** What is shown where a screen itself failed: what happened, that nothing is lost, and the way back. */
export function CrashPage() {
  const error = useRouteError();
  return (
    <main className="p-6 max-w-xl">
      <h1 className="text-lg font-semibold mb-2">This screen failed</h1>
      <p className="mb-2">What was typed is kept in this browser and on the server.</p>
      <p className="figure text-quiet text-[0.9rem] mb-4 break-words">
        {error instanceof Error ? error.message : 'unknown reason'}
      </p>
      <a className="btn btn-sm" href={window.location.href}>
        Open it again
      </a>{' '}
      <a className="btn btn-sm" href={LIBRARY}>
        Library
      </a>
    </main>
  );
}
