import type { ReactNode } from 'react';
import { useAttachments } from './AttachmentsProvider';

export const ACCEPT = 'image/jpeg,image/png,image/webp,application/pdf';

/** Chooses photos or papers, or takes them with the camera of a phone. */
export function AddButton({
  path,
  label,
  className,
  children,
}: {
  path: string;
  label: string;
  className: string;
  children: ReactNode;
}) {
  const { queue } = useAttachments();
  return (
    <label className={`${className} cursor-pointer focus-within:outline-2 outline-air`}>
      {children}
      <input
        type="file"
        multiple
        accept={ACCEPT}
        className="sr-only"
        aria-label={label}
        onChange={(e) => {
          const files = [...(e.currentTarget.files ?? [])];
          e.currentTarget.value = '';
          queue.add(files, path);
        }}
      />
    </label>
  );
}
