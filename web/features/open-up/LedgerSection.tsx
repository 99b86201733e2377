import { Plus } from 'lucide-react';
import type { ReactNode } from 'react';

/** A ledger of the opening: its title, the way to one more entry, and what to do while it is empty. */
export function LedgerSection({
  title,
  word,
  full,
  add,
  empty,
  children,
}: {
  title: string;
  /** One entry. */
  word: string;
  /** No more fit. */
  full: boolean;
  add: () => void;
  /** Said while there is no entry, null where there is one. */
  empty: string | null;
  children: ReactNode;
}) {
  return (
    <section aria-label={title.toLowerCase()} className="text-[0.95rem]">
      <div className="flex items-baseline gap-4 mb-1">
        <h2 className="font-semibold">{title}</h2>
        <button type="button" className="btn btn-xs" disabled={full} onClick={add}>
          <Plus size={13} aria-hidden /> {word}
        </button>
      </div>
      {empty === null ? children : <p className="text-quiet">{empty}</p>}
    </section>
  );
}
