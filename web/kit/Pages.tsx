/** Turns the pages of a list whose newest stand first; nothing where there is one page. */
export function Pages({
  page,
  pages,
  turn,
}: {
  /** From 1. */
  page: number;
  pages: number;
  turn: (to: number) => void;
}) {
  if (pages <= 1) return null;
  return (
    <div className="flex items-center gap-3 py-3 text-[0.9rem]">
      <button
        type="button"
        className="btn btn-sm"
        disabled={page <= 1}
        onClick={() => turn(page - 1)}
      >
        newer
      </button>
      <span className="text-quiet">
        {page} of {pages}
      </span>
      <button
        type="button"
        className="btn btn-sm"
        disabled={page >= pages}
        onClick={() => turn(page + 1)}
      >
        older
      </button>
    </div>
  );
}
