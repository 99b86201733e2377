import { useState } from 'react';
import { Kbd } from '../../../kit/Kbd';
import type { Panel } from './benchPanels';

/** A question of the bench: each answer is one key or one touch, or a line is typed. */
export function ChoicePanel({
  panel,
  choose,
  close,
}: {
  panel: Panel;
  choose: (run: () => void) => void;
  close: () => void;
}) {
  const [text, setText] = useState('');
  return (
    <section
      aria-label={panel.title}
      className="border-t-2 border-air bg-base-200 p-4"
      data-testid="bench-panel"
    >
      <h2 className="text-2xl font-semibold mb-2">{panel.title}</h2>
      {panel.typed && (
        <form
          className="flex gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            const line = text.trim();
            if (line) choose(() => panel.typed!.run(line));
            else close();
          }}
        >
          <input
            className="input grow text-xl"
            aria-label={panel.typed.label}
            maxLength={panel.typed.label.startsWith('note') ? 1000 : 120}
            autoFocus
            value={text}
            onChange={(e) => setText(e.currentTarget.value)}
          />
          <button type="submit" className="btn">
            Keep
          </button>
        </form>
      )}
      <div className="grid sm:grid-cols-3 gap-x-4 gap-y-1">
        {panel.choices.map((c) => (
          <button
            key={c.key}
            type="button"
            className="flex items-center gap-3 text-left min-h-11 px-2 rounded-sm cursor-pointer hover:bg-base-300"
            onClick={() => choose(c.run)}
          >
            <Kbd>{c.key}</Kbd> {c.words}
          </button>
        ))}
        <button
          type="button"
          className="flex items-center gap-3 text-left min-h-11 px-2 rounded-sm cursor-pointer text-quiet hover:bg-base-300"
          onClick={close}
        >
          <Kbd>Esc</Kbd> nothing
        </button>
      </div>
    </section>
  );
}
