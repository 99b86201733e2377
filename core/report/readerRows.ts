import { wattsText } from '../case/answerWords';
import { bandText } from '../verdict/bandWords';
import { careWords } from '../verdict/care';
import type { Advice, Verdict } from '../verdict/verdict';

const HELD = {
  held: 'is held',
  'likely held': 'is likely held',
  'likely short': 'is likely short of watts',
  short: 'is short of watts',
} as const;

/** What a reader asks, each with what the figures say. */
export function readerRows(verdict: Verdict): string[][] {
  const { work, burst, advice, tooSmall, care, score } = verdict;
  return [
    ...work.map((w) => [
      sentence(w.name),
      `${HELD[w.word]}: wants ${whole(w.wantedW)} W, and ${bandText(w.band)} are there`,
    ]),
    ['A short burst', burstWords(burst)],
    ...(advice.length ? [['What would help', advice.map(adviceWords).join('; ')]] : []),
    ...(tooSmall.length ? [['Too small to feel', tooSmall.join(', ')]] : []),
    [
      'Service',
      score && score.computed !== null
        ? `${(score.agreed ?? score.computed).toFixed(1)} of 10${score.judged < 1 ? `, between ${score.low.toFixed(1)} and ${score.high.toFixed(1)} once all is judged` : ''}`
        : 'not judged: there is no log of an opening',
    ],
    ['Care', care.map(careWords).join(', ')],
  ];
}

/** “Clean fins, fans and mesh: 6 W more, 3 to 9, in 30 min as is usual”; what opens nothing takes no time to speak of. */
function adviceWords({ name, gain, minutes, usualMinutes, opens }: Advice): string {
  const time = opens ? `, in ${Math.round(minutes)} min${usualMinutes ? ' as is usual' : ''}` : '';
  return `${name}: ${wattsText(gain.wattsGained.p50)} W more, ${bandText(gain.wattsGained)}${time}`;
}

const whole = (x: number): string => Number(x.toFixed(1)).toString();

const sentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

const ENDED_BY: Partial<Record<string, string>> = {
  adapter: 'the adapter gives less',
  junction: 'a junction is at its limit at once',
  skin: 'the skin is at its limit at once',
};

/** How long a burst is held, or why not at all. */
function burstWords({ cpuW, gpuW, seconds, heldBy }: Verdict['burst']): string {
  const watts = `${wattsText(cpuW + gpuW)} W`;
  if (seconds === null) return `${watts} are held for longer than ten minutes from idle`;
  if (seconds < 1)
    return `${watts} are not held at all: ${ENDED_BY[heldBy ?? ''] ?? 'cut at once'}`;
  return `${watts} are held for ${timeText(seconds)} from idle`;
}

/** “50 s”, “3 min 20 s”. */
function timeText(seconds: number): string {
  const s = Math.round(seconds);
  if (s < 60) return `${s} s`;
  return s % 60 === 0 ? `${s / 60} min` : `${Math.floor(s / 60)} min ${s % 60} s`;
}
