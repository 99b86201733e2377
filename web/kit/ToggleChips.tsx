/** A few words, each on or off: Space turns one, Enter goes on to the next field. */
export function ToggleChips({
  id,
  label,
  options,
  chosen,
  toggle,
  mono = false,
}: {
  id?: string;
  label: string;
  options: readonly { id: string; words: string }[];
  chosen: readonly string[];
  toggle: (id: string, on: boolean) => void;
  /** Names of parts stand in the figures' face. */
  mono?: boolean;
}) {
  return (
    <div id={id} role="group" aria-label={label} data-chips className="flex flex-wrap gap-1">
      {options.map(({ id: option, words }) => {
        const on = chosen.includes(option);
        return (
          <button
            key={option}
            type="button"
            aria-pressed={on}
            className={`px-1.5 rounded-sm border cursor-pointer whitespace-nowrap ${mono ? 'figure text-small' : 'text-small'} ${
              on ? 'border-ink bg-base-200' : 'border-dashed border-rule text-quiet'
            }`}
            onClick={() => toggle(option, !on)}
          >
            {mono && !on ? '+ ' : ''}
            {words}
          </button>
        );
      })}
    </div>
  );
}
