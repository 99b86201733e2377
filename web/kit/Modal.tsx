import { useEffect, useRef, type ReactNode } from 'react';

/** A dialog over the page; Escape or a click beside it closes it where it may be closed. */
export function Modal({
  title,
  open,
  onClose,
  children,
}: {
  title: string;
  open: boolean;
  onClose?: () => void;
  children: ReactNode;
}) {
  const ref = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const dialog = ref.current;
    if (!dialog) return;
    if (open && !dialog.open) dialog.showModal();
    if (!open && dialog.open) dialog.close();
  }, [open]);
  return (
    <dialog
      ref={ref}
      className="modal"
      aria-label={title}
      onCancel={(e) => {
        e.preventDefault();
        onClose?.();
      }}
      onClick={(e) => {
        if (e.target === ref.current) onClose?.();
      }}
    >
      <div className="modal-box border border-rule max-w-xl p-5">
        <h2 className="text-lg font-semibold mb-3">{title}</h2>
        {open && children}
      </div>
    </dialog>
  );
}
