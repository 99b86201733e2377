import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { MAX_COMPARED } from '@zugluft/core/library/compared';
import { useNavigate } from 'react-router';
import { useCommands } from '../../documents/commands';
import { Kbd } from '../../kit/Kbd';
import { changeTags } from '../../api/machines';

/** What can be done with the chosen machines: looked at side by side, tags put on or taken off. */
export function ChosenBar({ chosen, clear }: { chosen: readonly string[]; clear: () => void }) {
  const [text, setText] = useState('');
  const client = useQueryClient();
  const tags = text
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean);
  const change = useMutation({
    mutationFn: (way: 'add' | 'remove') =>
      changeTags(chosen, way === 'add' ? tags : [], way === 'remove' ? tags : []),
    onSuccess: ({ machines }, way) => {
      void client.invalidateQueries({ queryKey: ['machines'] });
      const done = [...tags];
      toast(
        `${done.join(', ')} ${way === 'add' ? 'put on' : 'taken off'} ${machines} ${machines === 1 ? 'machine' : 'machines'}`,
        {
          action: {
            label: 'Undo',
            onClick: () =>
              void changeTags(chosen, way === 'add' ? [] : done, way === 'add' ? done : []).then(
                () => client.invalidateQueries({ queryKey: ['machines'] }),
              ),
          },
        },
      );
      setText('');
    },
  });
  const ready = tags.length > 0 && !change.isPending;
  const navigate = useNavigate();
  const comparable = chosen.length >= 2 && chosen.length <= MAX_COMPARED;
  const compare = () => {
    if (comparable) void navigate(`/compare/${chosen.join('/')}`);
    else
      toast(
        chosen.length < 2
          ? 'Choose a second machine to compare it with.'
          : `At most ${MAX_COMPARED} machines are compared.`,
      );
  };
  useCommands({ 'compare-chosen': compare });
  return (
    <form
      aria-label="the chosen machines"
      className="flex flex-wrap items-center gap-2 py-2 text-[0.9rem] border-b border-rule"
      onSubmit={(e) => {
        e.preventDefault();
        if (ready) change.mutate('add');
      }}
    >
      <span>
        <span className="figure">{chosen.length}</span> chosen
      </span>
      <button
        type="button"
        className="btn btn-xs"
        title={comparable ? undefined : `two to ${MAX_COMPARED} machines`}
        onClick={compare}
      >
        Compare <Kbd>c</Kbd>
      </button>
      <input
        className="input input-xs w-56"
        aria-label="tags, separated by commas"
        placeholder="tags, separated by commas"
        maxLength={200}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      <button type="submit" className="btn btn-xs" disabled={!ready}>
        Put on
      </button>
      <button
        type="button"
        className="btn btn-xs"
        disabled={!ready}
        onClick={() => change.mutate('remove')}
      >
        Take off
      </button>
      <button
        type="button"
        className="underline cursor-pointer text-quiet hover:text-ink"
        onClick={clear}
      >
        choose none
      </button>
      {change.error && (
        <span className="text-heat" role="alert">
          {change.error.message}
        </span>
      )}
    </form>
  );
}
