import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { readInbox, runKeys, type RunDocument } from '../../api/runs';

const LOOK_AGAIN_MS = 2000;
/** A log that has not grown for so long is done. */
const RESTS_MS = 20_000;

/** What loggers write into the folder that is watched: a file is followed while it grows, and taken once it rests. */
export function InboxPanel({
  run,
  follow,
  leave,
  take,
}: {
  run: RunDocument;
  follow: (name: string) => void;
  leave: (name: string) => void;
  take: (name: string) => Promise<void>;
}) {
  const { data, error } = useQuery({
    queryKey: runKeys.inbox,
    queryFn: ({ signal }) => readInbox(signal),
    refetchInterval: LOOK_AGAIN_MS,
    retry: false,
  });
  const grown = useRef(new Map<string, { bytes: number; atMs: number }>());
  const taking = useRef(new Set<string>());
  const follows = run.follows ?? [];
  const rests = (name: string): boolean => {
    const at = grown.current.get(name);
    return at !== undefined && at.bytes > 0 && Date.now() - at.atMs > RESTS_MS;
  };
  useEffect(() => {
    for (const { name, bytes } of data?.files ?? []) {
      // counted by this page’s clock: that of the share may be another one
      if (grown.current.get(name)?.bytes !== bytes) {
        grown.current.set(name, { bytes, atMs: Date.now() });
      } else if (follows.includes(name) && rests(name) && !taking.current.has(name)) {
        taking.current.add(name);
        void take(name).finally(() => taking.current.delete(name));
      }
    }
  });
  if (error) {
    return (
      <p className="text-heat text-[0.9rem]" role="status">
        The inbox cannot be read at the moment: {error.message}. What is followed goes on when it
        can.
      </p>
    );
  }
  if (!data) return null;
  const taken = new Set((run.logs ?? []).map((l) => l.file));
  const missing = follows.filter((f) => !data.files.some((x) => x.name === f));
  return (
    <section aria-label="inbox" className="border-y border-rule py-1 my-1 text-[0.9rem]">
      <p className="text-small text-quiet">
        {data.files.length === 0 ? 'Nothing lies in ' : 'In '}
        <span className="figure break-all">{data.folder}</span>
        {data.files.length === 0 && ': let a logger write there, also over a share.'}
      </p>
      <ul>
        {data.files.slice(0, 12).map(({ name, bytes }) => {
          const isFollowed = follows.includes(name);
          return (
            <li key={name} className="flex flex-wrap gap-x-4 items-baseline">
              <span>{name}</span>
              <span className="figure text-quiet">{size(bytes)}</span>
              {isFollowed ? (
                <>
                  <span role="status" className="text-air">
                    {rests(name) ? 'rests, taken' : 'followed while it grows'}
                  </span>
                  <Act words="take it as it is" act={() => void take(name)} name={name} />
                  <Act words="leave it" act={() => leave(name)} name={name} />
                </>
              ) : taken.has(name) ? (
                <span className="text-quiet">taken</span>
              ) : (
                <>
                  <Act words="follow" act={() => follow(name)} name={name} />
                  <Act words="take" act={() => void take(name)} name={name} />
                </>
              )}
            </li>
          );
        })}
        {missing.map((name) => (
          <li key={name} className="flex gap-x-4">
            <span>{name}</span>
            <span className="text-heat">is not in the inbox</span>
            <Act words="leave it" act={() => leave(name)} name={name} />
          </li>
        ))}
      </ul>
      {data.files.length + data.more > 12 && (
        <p className="text-small text-quiet">and {data.files.length + data.more - 12} older ones</p>
      )}
    </section>
  );
}

function Act({ words, act, name }: { words: string; act: () => void; name: string }) {
  return (
    <button
      type="button"
      className="underline cursor-pointer"
      aria-label={`${words}: ${name}`}
      onClick={act}
    >
      {words}
    </button>
  );
}

const size = (bytes: number): string =>
  bytes < 1e6 ? `${(bytes / 1e3).toFixed(1)} kB` : `${(bytes / 1e6).toFixed(1)} MB`;
