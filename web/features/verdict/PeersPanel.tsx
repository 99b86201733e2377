import { Link } from 'react-router';
import { wattsText } from '@zugluft/core/case/answerWords';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { bandText } from '@zugluft/core/verdict/bandWords';
import { rankWords } from '@zugluft/core/verdict/peers';
import { atCap } from '../../documents/answer/caps';
import { BandBar } from '../../documents/answer/BandBar';
import { usePeers } from './usePeers';

/** Machines of its kind from the most watts down, each a step away from being held against it. */
export function PeersPanel({
  machineId,
  cap,
  made,
  caps,
}: {
  machineId: string;
  cap: Cap;
  made: boolean;
  /** Of the laboratory. */
  caps: readonly Cap[];
}) {
  const { data, error } = usePeers(machineId, cap, made, caps);
  const peers = data?.peers;
  const most = Math.max(1, ...(peers?.items ?? []).map((p) => p.band.p95));
  return (
    <section aria-label="peers">
      <h2 className="font-semibold mb-2">Among its peers, {atCap(cap)}</h2>
      {error && <p className="text-quiet">They could not be read: {error.message}.</p>}
      {data && !peers && (
        <p className="text-quiet">
          {caps.includes(cap)
            ? 'Its watts in the library are still being computed.'
            : 'The library has watts at the caps of the laboratory alone; this is none of them.'}
        </p>
      )}
      {peers && (
        <>
          <p className="text-small text-quiet mb-2">{`${rankWords(peers.rank)}.`}</p>
          <ul className="space-y-1.5">
            {peers.items.map((p) => (
              <li
                key={p.id}
                className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)_2.5rem] gap-x-3 items-center"
              >
                {p.isOwn ? (
                  <strong className="font-semibold truncate">{p.name}</strong>
                ) : (
                  <Link
                    to={`/compare/${machineId}/${p.id}`}
                    className="truncate hover:underline underline-offset-2 py-0.5"
                    title={`${p.name}: side by side. The chance that it sustains more: ${Math.round(100 * p.chance!)} %`}
                  >
                    {p.name}
                  </Link>
                )}
                <BandBar band={p.band} most={most} tone={p.isOwn ? 'own' : 'computed'} />
                <span className="figure text-right" title={bandText(p.band)}>
                  {wattsText(p.band.p50)}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
