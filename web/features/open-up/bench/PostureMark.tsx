const LINES: Record<string, string> = {
  // the base lies flat, the lid under or over it, seen from the side
  'base-up': 'M4 13H44M6 20H42M11 9V7M37 9V7',
  'lid-up': 'M4 20H44M6 18L40 4',
  'lid-at-right-angle': 'M4 20H44M5 19V2',
  standing: 'M20 22V2M26 22V2M12 22H34',
};
const WORDS: Record<string, string> = {
  'base-up': 'base up, lid closed',
  'lid-up': 'lid up',
  'lid-at-right-angle': 'lid at a right angle',
  standing: 'standing on its edge',
};

/** How the machine lies, from the side, with its words. */
export function PostureMark({ posture }: { posture: string | undefined }) {
  if (!posture) return null;
  return (
    <span className="inline-flex items-center gap-3">
      <svg
        viewBox="0 0 48 24"
        className="w-14 h-7"
        fill="none"
        stroke="currentColor"
        strokeWidth="2.5"
        strokeLinecap="round"
        aria-hidden
      >
        <path d={LINES[posture]} />
      </svg>
      {WORDS[posture]}
    </span>
  );
}
