import { isPaper, smallUrl, type Attachment } from '../../api/attachments';

/** A photo small, or a paper as a sheet with its kind; opens large. */
export function AttachmentTile({
  attachment: a,
  open,
  size,
}: {
  attachment: Attachment;
  open: () => void;
  size: 'row' | 'page';
}) {
  const label = a.caption || a.name;
  const box = size === 'row' ? 'h-12 w-16' : 'h-32 w-full';
  return (
    <button
      type="button"
      className={`${box} block cursor-pointer border border-rule rounded-sm overflow-hidden bg-base-200 hover:border-ink`}
      aria-label={`open ${label}`}
      title={label}
      onClick={open}
    >
      {isPaper(a) ? (
        <span className="figure text-small text-quiet">PDF</span>
      ) : (
        <img
          src={smallUrl(a)}
          alt=""
          loading="lazy"
          decoding="async"
          className="size-full object-cover"
        />
      )}
    </button>
  );
}
