import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { createMachine, listMachines, machineKeys } from '../api/machines';
import { emptyRecord } from '../documents/record/draft';
import { STEPS } from '../features/machine/steps';
import { Modal } from '../kit/Modal';
import { useTheme } from '../kit/theme';

interface Command {
  name: string;
  run: () => void | Promise<void>;
}

/** One place to find a machine or do something. */
export function CommandPalette({ open, close }: { open: boolean; close: () => void }) {
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState(0);
  const navigate = useNavigate();
  const { id } = useParams();
  const { toggle } = useTheme();
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!open) return;
    setText('');
    setChosen(0);
    field.current?.focus();
  }, [open]);
  const params = new URLSearchParams({ q: text.slice(0, 200), pageSize: '8' }).toString();
  const { data } = useQuery({
    queryKey: machineKeys.list(params),
    queryFn: ({ signal }) => listMachines(params, signal),
    enabled: open,
    placeholderData: (before) => before,
  });
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const actions: Command[] = [
    ...(id
      ? STEPS.map((s) => ({
          name: `Go to ${s.name.toLowerCase()}`,
          run: () => void navigate(`/machines/${id}/${s.path}`),
        }))
      : []),
    ...(id
      ? [
          { name: 'Go to photos and papers', run: () => void navigate(`/machines/${id}/photos`) },
          { name: 'Go to history', run: () => void navigate(`/machines/${id}/history`) },
        ]
      : []),
    ...(id
      ? [
          { name: 'Bench mode', run: () => void navigate(`/machines/${id}/open-up/bench`) },
          {
            name: 'Parts and connectors',
            run: () => void navigate(`/machines/${id}/open-up/parts`),
          },
          { name: 'Service score', run: () => void navigate(`/machines/${id}/open-up/score`) },
          { name: 'Guide', run: () => void navigate(`/machines/${id}/open-up/guide`) },
        ]
      : []),
    { name: 'House rules', run: () => void navigate('/house-rules') },
    { name: 'Method and defaults', run: () => void navigate('/method') },
    { name: 'Library', run: () => void navigate('/') },
    {
      name: 'New machine',
      run: async () => {
        const made = await createMachine(emptyRecord());
        await navigate(`/machines/${made.id}/identify`);
      },
    },
    { name: 'Light or dim screen', run: toggle },
  ].filter((c) => words.every((w) => c.name.toLowerCase().includes(w)));
  const commands: Command[] = [
    ...(data?.items.map((m) => ({
      name: [m.maker, m.model, m.variant].filter(Boolean).join(' ') || 'Unnamed machine',
      run: () => void navigate(`/machines/${m.id}/cooling`),
    })) ?? []),
    ...actions,
  ];
  const at = Math.min(chosen, commands.length - 1);
  const run = (c: Command | undefined) => {
    if (!c) return;
    close();
    void c.run();
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
        aria-activedescendant={commands.length ? `command-${at}` : undefined}
        value={text}
        maxLength={200}
        onChange={(e) => {
          setText(e.currentTarget.value);
          setChosen(0);
        }}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown') setChosen(Math.min(at + 1, commands.length - 1));
          else if (e.key === 'ArrowUp') setChosen(Math.max(at - 1, 0));
          else if (e.key === 'Enter') run(commands[at]);
          else return;
          e.preventDefault();
        }}
      />
      <ul id="palette-list" role="listbox" aria-label="results">
        {commands.map((c, i) => (
          <li
            key={`${c.name}-${i}`}
            id={`command-${i}`}
            role="option"
            aria-selected={i === at}
            className={`px-2 py-1 cursor-pointer rounded-sm ${i === at ? 'bg-base-200' : ''}`}
            onMouseEnter={() => setChosen(i)}
            onClick={() => run(c)}
          >
            {c.name}
          </li>
        ))}
      </ul>
      {commands.length === 0 && <p className="text-quiet px-2">Nothing is called that.</p>}
    </Modal>
  );
}
