/** A few words, each on or off. */
export function ToggleChips({
  label,
  options,
  chosen,
  toggle,
  mono = false,
}: {
  label: string;
  options: readonly { id: string; words: string }[];
  chosen: readonly string[];
  toggle: (id: string, on: boolean) => void;
  /** Names of parts stand in the figures' face. */
  mono?: boolean;
}) {
  return (
    <div role="group" aria-label={label} className="flex flex-wrap gap-1">
      {options.map(({ id, words }) => {
        const on = chosen.includes(id);
        return (
          <button
            key={id}
            type="button"
            aria-pressed={on}
            className={`px-1.5 rounded-sm border cursor-pointer whitespace-nowrap ${mono ? 'figure text-[0.8rem]' : 'text-[0.85rem]'} ${
              on ? 'border-ink bg-base-200' : 'border-dashed border-rule text-quiet'
            }`}
            onClick={() => toggle(id, !on)}
          >
            {mono && !on ? '+ ' : ''}
            {words}
          </button>
        );
      })}
    </div>
  );
}
