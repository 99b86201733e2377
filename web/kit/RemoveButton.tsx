import { X } from 'lucide-react';

/** Takes an entry off a list; undo brings it back. */
export function RemoveButton({ what, remove }: { what: string; remove: () => void }) {
  return (
    <button
      type="button"
      className="btn btn-ghost btn-xs px-1"
      aria-label={`remove ${what}`}
      title="undo brings it back"
      onClick={remove}
    >
      <X size={14} aria-hidden />
    </button>
  );
}
