import { useEffect, useLayoutEffect, useRef, type ReactNode } from 'react';

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
  // where the hand was before: one that is taken off the page while open gives nothing back by itself
  useLayoutEffect(() => {
    if (!open) return;
    const before = document.activeElement;
    return () => {
      if (!(before instanceof HTMLElement) || before === document.body) return;
      queueMicrotask(() => {
        const lost = document.activeElement === document.body || document.activeElement === null;
        if (lost && before.isConnected) before.focus();
      });
    };
  }, [open]);
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
      onKeyDown={(e) => {
        // one that may not be closed keeps the hand where it is
        if (e.key === 'Escape' && !onClose) e.preventDefault();
      }}
      // a browser lets nobody hold a dialog open against a second Escape, and closes it unasked
      onClose={() => {
        if (!open) return;
        if (onClose) onClose();
        else ref.current?.showModal();
      }}
      onClick={(e) => {
        if (e.target === ref.current) onClose?.();
      }}
    >
      <div tabIndex={0} className="modal-box border border-rule max-w-xl p-5">
        <h2 className="text-lg font-semibold mb-3">{title}</h2>
        {open && children}
      </div>
    </dialog>
  );
}
