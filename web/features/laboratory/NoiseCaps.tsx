import { useState } from 'react';
import { labCaps, type LabCaps } from '@zugluft/core/service/labSettings';

/** Levels as they are typed, in any order: “28, 32 36; 40,5”; what is no number stays as it is, to be refused. */
export function readLevels(text: string): (number | string)[] {
  return text
    .split(/[;\s]+|,(?!\d(?![\d]))/)
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => {
      const level = Number(part.replace(',', '.'));
      return Number.isFinite(level) ? level : part;
    });
}

/** What is wrong, and with which of the levels. */
function levelProblem(
  levels: readonly (number | string)[],
  { path, message }: { path: readonly PropertyKey[]; message: string },
): string {
  const at = path[1];
  const level = typeof at === 'number' ? levels[at] : undefined;
  if (level === undefined) return message;
  return typeof level === 'string' ? `“${level.slice(0, 24)}” is no level` : `${level} ${message}`;
}

/** The noise caps that ladder, envelope, library and tables answer for, typed in one line. */
export function NoiseCaps({
  caps,
  ready,
  save,
}: {
  caps: LabCaps;
  ready: boolean;
  save: (caps: LabCaps) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? caps.levelsDbA.join('  ');
  const read = labCaps.safeParse({ levelsDbA: readLevels(shown) });
  const problem = read.success ? null : levelProblem(readLevels(shown), read.error.issues[0]!);
  const leave = () => {
    if (text === null) return;
    if (read.success) {
      save(read.data);
      setText(null);
    }
  };
  return (
    <section aria-label="noise caps" className="mb-5">
      <h2 className="font-semibold mb-1">Noise caps</h2>
      <p className="text-quiet mb-2">
        The levels this laboratory works with. Ladder, envelope, library and tables follow them;
        fans off and full speed are always there, and any other level can be typed where one is
        chosen.
      </p>
      <label className="flex items-baseline gap-2">
        <input
          className={`input input-sm figure w-96 max-w-full ${problem ? 'border-heat text-heat' : ''}`}
          aria-label="noise caps, dB(A)"
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? 'caps-problem' : undefined}
          disabled={!ready}
          maxLength={120}
          value={shown}
          onChange={(e) => setText(e.currentTarget.value)}
          onBlur={leave}
          onKeyDown={(e) => {
            if (e.key === 'Enter') leave();
            if (e.key === 'Escape') {
              setText(null);
              e.currentTarget.blur();
            }
          }}
        />
        <span className="unit">dB(A)</span>
      </label>
      {problem && (
        <p id="caps-problem" className="text-heat text-small mt-1" role="alert">
          {problem}
        </p>
      )}
    </section>
  );
}
