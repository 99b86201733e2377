/** A key as printed on a keyboard. */
export function Kbd({ children }: { children: string }) {
  return (
    <kbd className="key-hint figure border border-rule rounded-sm px-1 text-small leading-tight text-quiet [.bench_&]:text-[0.95rem] [.btn-primary_&]:text-primary-content [.btn-primary_&]:border-primary-content">
      {children}
    </kbd>
  );
}
