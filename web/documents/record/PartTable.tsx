import { useCommands } from '../commands';
import { Copy, X } from 'lucide-react';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { shownUnit } from '@zugluft/core/record/units';
import {
  addPart,
  copyPart,
  partsOf,
  removePart,
  renamePart,
  type Part,
  type PartList,
} from './draft';
import { useMachineFile } from './MachineFile';
import { ChoiceInput } from './ChoiceInput';
import type { Column } from './columns';
import { FigureInput } from './FigureInput';
import { enterField } from '../../kit/fieldOrder';
import { Kbd } from '../../kit/Kbd';
import { RefsInput } from './RefsInput';
import { TextInput } from './TextInput';
import { useUnits } from '../../kit/units';

/** The parts of one kind as a table that is typed in; below it what the selected part holds beyond a row. */
export function PartTable({
  list,
  word,
  columns,
  empty,
  detail,
  hand,
}: {
  list: PartList;
  /** What one part is called, “fin stack”. */
  word: string;
  columns: readonly Column[];
  empty: string;
  detail?: (index: number, part: Part) => ReactNode;
  /** Which part is in hand, where another view shows it too. */
  hand?: { index: number; take: (index: number) => void };
}) {
  const { draft, change, issues } = useMachineFile();
  const { units } = useUnits();
  const parts = partsOf(draft, list);
  const [own, setOwn] = useState(0);
  const chosen = hand?.index ?? own;
  const setChosen = hand?.take ?? setOwn;
  const selected = Math.min(chosen, parts.length - 1);
  const body = useRef<HTMLTableSectionElement>(null);
  const [added, setAdded] = useState<number | null>(null);
  // a new part is typed in at once
  useEffect(() => {
    if (added === null) return;
    const row = body.current?.querySelector(`[data-row="${added}"]`);
    const first = row?.querySelector<HTMLElement>('input[inputmode=decimal]');
    if (first) enterField(first);
    setAdded(null);
  }, [added]);
  const add = () => {
    change((d) => addPart(d, list));
    setChosen(parts.length);
    setAdded(parts.length);
  };
  const copy = (index: number) => {
    change((d) => copyPart(d, list, index));
    setChosen(index + 1);
    setAdded(index + 1);
  };
  useCommands({
    'add-part': add,
    'copy-part': () => {
      if (parts.length) copy(parts.length - 1);
    },
  });
  const fields = new Set(columns.map((c) => c.field.split('.')[0]));
  return (
    <div>
      <div
        className="overflow-x-auto relative"
        // reached with the keyboard where it is wider than the page
        tabIndex={parts.length === 0 ? 0 : undefined}
        role="region"
        aria-label={`table of ${word}s`}
      >
        <table
          className="w-full min-w-[48rem] text-left border-collapse"
          data-testid={`table-${list}`}
        >
          <thead>
            <tr className="text-small text-quiet border-b border-rule">
              <th className="font-normal px-1.5 py-1.5 min-w-28">name</th>
              {columns.map((c) => (
                <th
                  key={c.field}
                  className={`font-normal px-1.5 py-1.5 ${c.kind === 'figure' ? 'text-right' : ''} ${c.width}`}
                >
                  {c.header}{' '}
                  {c.kind === 'figure' && c.unit && (
                    <span className="unit">{shownUnit(c.unit, units)}</span>
                  )}
                </th>
              ))}
              <th className="w-14">
                <span className="sr-only">copy or remove</span>
              </th>
            </tr>
          </thead>
          <tbody ref={body}>
            {parts.map((part, i) => {
              // what concerns the part as a whole, or a field that has no column here
              const whole = issues.filter((issue) => {
                if (issue.path === `${list}.${i}`) return true;
                const inside = issue.path.startsWith(`${list}.${i}.`)
                  ? issue.path.slice(`${list}.${i}.`.length).split('.')[0]
                  : undefined;
                return (
                  inside !== undefined &&
                  inside !== 'id' &&
                  inside !== 'along' &&
                  inside !== 'curve' &&
                  !fields.has(inside)
                );
              });
              return [
                <tr
                  key={i}
                  data-row={i}
                  className={`border-b border-rule align-top ${detail && i === selected ? 'bg-base-200' : ''}`}
                  onFocus={() => setChosen(i)}
                  onClick={() => setChosen(i)}
                >
                  <td className="py-0.5">
                    <TextInput
                      path={[list, i, 'id']}
                      label={`${word} ${i + 1}, name`}
                      mono
                      write={(d, text) => renamePart(d, list, i, text.replace(/[\s.]+/g, '-'))}
                    />
                  </td>
                  {columns.map((c) => (
                    <td key={c.field} className={`py-0.5 ${c.kind === 'refs' ? 'pt-1.5' : ''}`}>
                      <Cell list={list} index={i} part={part} column={c} word={word} />
                    </td>
                  ))}
                  <td className="py-0.5 whitespace-nowrap text-right">
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs px-1"
                      aria-label={`copy ${part.id}`}
                      title="copy"
                      onClick={(e) => {
                        e.stopPropagation();
                        copy(i);
                      }}
                    >
                      <Copy size={14} aria-hidden />
                    </button>
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs px-1"
                      aria-label={`remove ${part.id}`}
                      title="remove; undo brings it back"
                      onClick={(e) => {
                        e.stopPropagation();
                        change((d) => removePart(d, list, i));
                      }}
                    >
                      <X size={14} aria-hidden />
                    </button>
                  </td>
                </tr>,
                whole.length > 0 && (
                  <tr key={`${i}-issues`} className="border-b border-rule">
                    <td
                      colSpan={columns.length + 2}
                      className="text-heat text-small px-1.5 py-1"
                      role="alert"
                    >
                      {whole.map((w) => w.message).join('; ')}
                    </td>
                  </tr>
                ),
              ];
            })}
          </tbody>
        </table>
      </div>
      {parts.length === 0 && <p className="text-quiet px-1.5 py-4">{empty}</p>}
      <div className="flex gap-5 py-2 px-1.5 text-[0.9rem] no-print">
        <button
          type="button"
          data-onward
          className="cursor-pointer text-quiet hover:text-ink"
          onClick={add}
        >
          add a {word} <Kbd>n</Kbd>
        </button>
        {parts.length > 0 && (
          <button
            type="button"
            className="cursor-pointer text-quiet hover:text-ink"
            onClick={() => copy(parts.length - 1)}
          >
            copy the last <Kbd>c</Kbd>
          </button>
        )}
      </div>
      {detail && selected >= 0 && parts[selected] && detail(selected, parts[selected])}
    </div>
  );
}

function Cell({
  list,
  index,
  part,
  column,
  word,
}: {
  list: PartList;
  index: number;
  part: Part;
  column: Column;
  word: string;
}) {
  const { draft, change } = useMachineFile();
  const path = [list, index, ...column.field.split('.')];
  const label = `${part.id || `${word} ${index + 1}`}, ${column.header}`;
  switch (column.kind) {
    case 'figure':
      return <FigureInput path={path} label={label} />;
    case 'choice':
      return (
        <ChoiceInput path={path} label={label} options={column.options} empty={column.empty} />
      );
    case 'refs':
      return (
        <RefsInput path={path} label={label} ids={partsOf(draft, column.of).map((p) => p.id)} />
      );
    case 'switch': {
      const on = part[column.field] === true;
      return (
        <input
          type="checkbox"
          className="checkbox checkbox-sm ml-1.5 mt-1"
          aria-label={label}
          checked={on}
          onChange={() =>
            change((d) => ({
              ...d,
              [list]: partsOf(d, list).map((p, i) =>
                i === index ? { ...p, [column.field]: !on } : p,
              ),
            }))
          }
        />
      );
    }
    case 'text':
      return <TextInput path={path} label={label} />;
    case 'ref':
      return (
        <ChoiceInput
          path={path}
          label={label}
          options={[
            ...(column.besides ?? []),
            ...column.of.flatMap((of) => partsOf(draft, of).map((p) => p.id)),
          ]}
          empty="nowhere"
          names
        />
      );
    case 'note':
      return (
        <div className="figure px-1.5 py-1.5 text-small text-quiet leading-snug">
          {column.render(part)}
        </div>
      );
  }
}
