/** The head of a table that is only read: quiet, to the left; an empty title stands over the names of its rows. */
export function ReadingHead({
  titles,
  wideOnly,
}: {
  titles: readonly string[];
  /** A column that a phone has no room for. */
  wideOnly?: string;
}) {
  return (
    <thead className="text-quiet text-small text-left">
      <tr>
        {titles.map((x) =>
          x === '' ? (
            <td key={x} />
          ) : (
            <th
              key={x}
              className={`font-normal pr-6 max-sm:pr-3 ${x === wideOnly ? 'max-sm:hidden' : ''}`}
            >
              {x}
            </th>
          ),
        )}
      </tr>
    </thead>
  );
}
