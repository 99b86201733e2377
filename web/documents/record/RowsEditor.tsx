import { Plus, X } from 'lucide-react';
import { fieldAt } from '@zugluft/core/record/fieldTable';
import { getAt, readTyped, setAt, typedFigure, type Path } from './draft';
import { useMachineFile } from './MachineFile';
import { FigureInput } from './FigureInput';
import { useUnits } from '../../kit/units';
import { useKeptText } from '../../kit/useKeptText';

export interface RowColumn {
  /** Field inside a row, such as `rpm` or `rpm.fan-left`. */
  path: readonly string[];
  header: string;
  unit?: string;
}

const MAX_ROWS = 200;

/** Rows of numbers out of pasted text: one line each, parted by tabs, semicolons or spaces. */
export function pastedRows(text: string): (number | string | undefined)[][] {
  return text
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter(Boolean)
    .slice(0, MAX_ROWS)
    .map((line) => line.split(/\s*[\t;]\s*|\s+/).map(readTyped));
}

/** A list of measured points, typed row by row or pasted from a spreadsheet. */
export function RowsEditor({
  path,
  columns,
  title,
  empty,
}: {
  path: Path;
  columns: readonly RowColumn[];
  title: string;
  empty: string;
}) {
  const { machine, draft, change, issueAt } = useMachineFile();
  const { units } = useUnits();
  const unitOf = (c: RowColumn) => fieldAt([...path, 0, ...c.path].join('.'))?.unit || undefined;
  const value = getAt(draft, path);
  const rows = Array.isArray(value) ? (value as unknown[]) : [];
  const key = path.join('.');
  const rowOf = (numbers: readonly unknown[]) =>
    columns.reduce<Record<string, unknown>>(
      (row, c, i) => (numbers[i] === undefined ? row : setAt(row, c.path, numbers[i])),
      {},
    );
  const write = (next: unknown[]) => change((d) => setAt(d, path, next.length ? next : undefined));
  // a new row becomes part of the record when each of its fields holds something; until then this browser keeps it
  const kept = `zugluft.row.${machine.id}.${key}`;
  const [entry, setEntry, safe] = useKeptText(kept);
  const addEntry = (row: HTMLElement | null) => {
    const fields = [...(row?.querySelectorAll('input') ?? [])];
    const open = columns.findIndex((_, k) => !(entry[k] ?? '').trim());
    if (open >= 0) {
      fields[open]?.focus();
      return;
    }
    write([...rows, rowOf(columns.map((c, k) => typedFigure(entry[k]!, unitOf(c), units)))]);
    setEntry([]);
    fields[0]?.focus();
  };
  return (
    <section
      aria-label={title}
      className="w-full"
      onPaste={(e) => {
        const text = e.clipboardData.getData('text');
        if (!/[\t\n;]/.test(text.trim())) return;
        e.preventDefault();
        const pasted = pastedRows(text).map(rowOf);
        write([...rows, ...pasted].slice(0, MAX_ROWS));
      }}
    >
      <h3 className="text-small text-quiet">{title}</h3>
      {rows.length === 0 && <p className="text-small text-quiet">{empty}</p>}
      {rows.length < MAX_ROWS && (
        <table className="text-left border-collapse">
          <thead>
            <tr className="text-small text-quiet border-b border-rule">
              {columns.map((c) => (
                <th key={c.header} className="font-normal px-1.5 py-0.5 w-28 text-right">
                  {c.header} {c.unit && <span className="unit">{c.unit}</span>}
                </th>
              ))}
              <th className="w-8">
                <span className="sr-only">remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((_, i) => (
              <tr key={i} className="border-b border-rule align-top">
                {columns.map((c) => (
                  <td key={c.header}>
                    <FigureInput
                      path={[...path, i, ...c.path]}
                      label={`${title}, row ${i + 1}, ${c.header}`}
                    />
                  </td>
                ))}
                <td>
                  <button
                    type="button"
                    className="btn btn-ghost btn-xs px-1"
                    aria-label={`remove row ${i + 1} of ${title}`}
                    onClick={() => write(rows.filter((_, k) => k !== i))}
                  >
                    <X size={13} aria-hidden />
                  </button>
                </td>
              </tr>
            ))}
            <tr className="border-b border-rule">
              {columns.map((c, k) => (
                <td key={c.header}>
                  <input
                    className="figure input input-sm text-[0.95rem] w-full text-right px-1.5 bg-transparent border-dashed"
                    inputMode="decimal"
                    autoComplete="off"
                    maxLength={30}
                    aria-label={`${title}, new row, ${c.header}`}
                    value={entry[k] ?? ''}
                    onChange={(e) => {
                      const next = [...entry];
                      next[k] = e.currentTarget.value;
                      setEntry(next);
                    }}
                    onKeyDown={(e) => {
                      if (e.key !== 'Enter') return;
                      e.preventDefault();
                      addEntry(e.currentTarget.closest('tr'));
                    }}
                  />
                </td>
              ))}
              <td>
                <button
                  type="button"
                  className="btn btn-ghost btn-xs px-1"
                  aria-label={`add the row to ${title}`}
                  title="add the row, Enter"
                  onClick={(e) => addEntry(e.currentTarget.closest('tr'))}
                >
                  <Plus size={13} aria-hidden />
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      )}
      <p className="text-small text-quiet py-1">
        Enter adds the row; several rows may be pasted from a spreadsheet.
      </p>
      {issueAt.get(key) && (
        <p className="text-heat text-small" role="alert">
          {issueAt.get(key)}
        </p>
      )}
      {!safe && (
        <p className="text-heat text-small" role="alert">
          This browser keeps nothing: the new row is lost when the page is left. Fill it in to make
          it part of the record.
        </p>
      )}
    </section>
  );
}
