/** The head of a table of few columns; an empty title is that of a column of buttons. */
export function TableHead({
  titles,
  wide,
}: {
  titles: readonly string[];
  /** The column that takes what is left. */
  wide?: string;
}) {
  return (
    <thead>
      <tr className="text-small text-quiet border-b border-rule">
        {titles.map((x) => (
          <th
            key={x}
            className={`font-normal px-1.5 py-1 whitespace-nowrap ${x === wide ? 'w-full' : ''}`}
          >
            {x || <span className="sr-only">actions</span>}
          </th>
        ))}
      </tr>
    </thead>
  );
}
