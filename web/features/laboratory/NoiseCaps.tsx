import { labCaps, type LabCaps } from '@zugluft/core/service/labSettings';
import { SettingInput } from './SettingInput';

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

/** Caps as they are typed, or what is wrong with which of them. */
function readCaps(typed: string): { value: LabCaps } | { problem: string } {
  const levels = readLevels(typed);
  const read = labCaps.safeParse({ levelsDbA: levels });
  return read.success
    ? { value: read.data }
    : { problem: levelProblem(levels, read.error.issues[0]!) };
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
  return (
    <section aria-label="noise caps" className="mb-5">
      <h2 className="font-semibold mb-1">Noise caps</h2>
      <p className="text-quiet mb-2">
        The levels this laboratory works with. Ladder, envelope, library and tables follow them;
        fans off and full speed are always there, and any other level can be typed where one is
        chosen.
      </p>
      <SettingInput
        label="noise caps, dB(A)"
        unit="dB(A)"
        value={caps}
        text={({ levelsDbA }) => levelsDbA.join('  ')}
        read={readCaps}
        save={save}
        ready={ready}
        wide
      />
    </section>
  );
}
