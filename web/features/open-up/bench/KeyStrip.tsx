import { Kbd } from '../../../kit/Kbd';

export interface StripKey {
  key: string;
  words: string;
  run: () => void;
  /** The one that goes on. */
  main?: boolean;
  off?: boolean;
}

/** What each key does now; each is a button large enough for a thumb. */
export function KeyStrip({ keys }: { keys: readonly StripKey[] }) {
  return (
    <div
      className="flex flex-wrap gap-2 border-t border-ink px-4 py-2"
      role="toolbar"
      aria-label="keys of the bench"
    >
      {keys.map((k) => (
        <button
          key={k.key}
          type="button"
          disabled={k.off}
          className={`btn h-12 px-3 font-normal text-base ${k.main ? 'btn-primary grow' : ''}`}
          onClick={k.run}
        >
          <Kbd>{k.key}</Kbd> {k.words}
        </button>
      ))}
    </div>
  );
}
