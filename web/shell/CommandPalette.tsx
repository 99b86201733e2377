import { useQuery } from '@tanstack/react-query';
import { DEFAULTS } from '@zugluft/core/record/defaults';
import { useEffect, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { listMachines, machineKeys } from '../api/machines';
import { giveCommand, useStanding } from '../documents/commands';
import { keeperOf } from '../documents/keepers';
import { Modal } from '../kit/Modal';
import {
  commandEntries,
  compareEntries,
  comparedWith,
  elsewhereWords,
  machineEntries,
  methodEntries,
  partEntries,
  type Entry,
} from './paletteEntries';

/** Equations are loaded when somebody looks for something. */
const loadMethod = async () => (await import('@zugluft/core/method/equations')).METHOD;

/** One place to find a machine, a part, an equation or a default, or to do something. */
export function CommandPalette({ open, close }: { open: boolean; close: () => void }) {
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState(0);
  const navigate = useNavigate();
  const { id } = useParams();
  const standing = useStanding();
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!open) return;
    setText('');
    setChosen(0);
    field.current?.focus();
  }, [open]);
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const other = comparedWith(words, id);
  const asked = other ? other.join(' ') : text;
  const params = new URLSearchParams({ q: asked.slice(0, 200), pageSize: '8' }).toString();
  const { data } = useQuery({
    queryKey: machineKeys.list(params),
    queryFn: ({ signal }) => listMachines(params, signal),
    enabled: open,
    placeholderData: (before) => before,
  });
  const { data: method } = useQuery({
    queryKey: ['method'],
    queryFn: loadMethod,
    enabled: open,
    staleTime: Infinity,
  });
  const { data: keeper } = useQuery({
    queryKey: ['keeper', id],
    queryFn: () => keeperOf('record', id!),
    enabled: open && id !== undefined,
    gcTime: 0,
  });
  const entries: Entry[] = [
    ...(other && id ? compareEntries(data?.items ?? [], id) : machineEntries(data?.items ?? [])),
    ...commandEntries(words, standing, id),
    ...(keeper && id ? partEntries(keeper.view().value, id, words) : []),
    ...(method ? methodEntries(method, DEFAULTS, words) : []),
  ];
  const at = Math.min(chosen, entries.length - 1);
  const run = (e: Entry | undefined) => {
    if (!e) return;
    close();
    if (e.command) giveCommand(e.command);
    if (e.to) void navigate(e.to);
  };
  return (
    <Modal title="Find or do" open={open} onClose={close}>
      <input
        ref={field}
        className="input w-full mb-2"
        aria-label="find a machine or do something"
        role="combobox"
        aria-expanded
        aria-controls="palette-list"
        aria-activedescendant={entries.length ? `command-${at}` : undefined}
        placeholder={id ? 'a name, a command, or compare with …' : 'a name or a command'}
        value={text}
        maxLength={200}
        onChange={(e) => {
          setText(e.currentTarget.value);
          setChosen(0);
        }}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown') setChosen(Math.min(at + 1, entries.length - 1));
          else if (e.key === 'ArrowUp') setChosen(Math.max(at - 1, 0));
          else if (e.key === 'Enter') run(entries[at]);
          else return;
          e.preventDefault();
        }}
      />
      <ul id="palette-list" role="listbox" aria-label="results">
        {entries.map((e, i) => (
          <li
            key={`${e.name}-${i}`}
            id={`command-${i}`}
            role="option"
            aria-selected={i === at}
            className={`px-2 py-1 cursor-pointer rounded-sm flex gap-3 ${i === at ? 'bg-base-200' : ''}`}
            onMouseEnter={() => setChosen(i)}
            onClick={() => run(e)}
          >
            <span className="grow min-w-0 truncate">{e.name}</span>
            <span className="text-quiet text-small whitespace-nowrap">{e.hint}</span>
          </li>
        ))}
      </ul>
      {entries.length === 0 && (
        <p className="text-quiet px-2">{elsewhereWords(words) ?? 'Nothing is called that.'}</p>
      )}
    </Modal>
  );
}
