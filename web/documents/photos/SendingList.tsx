import { useAttachments } from './AttachmentsProvider';
import type { Sending } from './sendQueue';

/** Photos and papers that have not arrived yet: how many, which, and why not. */
export function SendingList({ items }: { items: readonly Sending[] }) {
  const { queue, sending } = useAttachments();
  const refused = items.filter((i) => i.state === 'refused');
  const coming = items.filter((i) => i.state !== 'refused');
  const away = coming.some((i) => i.state === 'away');
  const done = queue.sent();
  const all = done + sending.filter((i) => i.state !== 'refused').length;
  return (
    <div className="py-1 text-[0.9rem]">
      {coming.length > 0 && (
        <p className="flex flex-wrap items-center gap-x-3" role="status">
          <progress className="progress w-28" aria-label="sent" value={done} max={all} />
          {away
            ? `The server is away; ${coming.length} wait here and go when it is back. Keep this page open.`
            : `${Math.min(done + 1, all)} of ${all}: ${coming[0]!.name.slice(0, 60)}`}
          <button
            type="button"
            className="underline cursor-pointer"
            onClick={() => {
              for (const i of coming) queue.cancel(i.key);
            }}
          >
            cancel
          </button>
        </p>
      )}
      {refused.map((i) => (
        <p key={i.key} className="text-heat" role="alert">
          {i.name.slice(0, 60)} was not taken: {i.message}.{' '}
          <button
            type="button"
            className="underline cursor-pointer text-ink"
            onClick={() => queue.cancel(i.key)}
          >
            dismiss
          </button>
        </p>
      ))}
    </div>
  );
}
