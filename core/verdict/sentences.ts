import { splitWords, wattsText } from '../case/answerWords';
import type { Cap } from '../envelope/fanStates';
import { bandText, hedge } from './bandWords';
import type { CapVerdict } from './verdict';

/** A piece of the headline; its figure of heat and its level stand out. */
export interface HeadlinePart {
  text: string;
  of: 'watts' | 'level' | null;
}

/** “at 36 dB(A)”, “with the fans off”, “at full speed”. */
export const capPhrase = (cap: Cap): string =>
  cap === 'off' ? 'with the fans off' : cap === 'full' ? 'at full fan speed' : `at ${cap} dB(A)`;

/** The headline: watts at the cap, no surer than their band, and what holds them back. */
export function headlineOf({ watts, cap, heldBack }: CapVerdict): HeadlinePart[] {
  const plain = (text: string): HeadlinePart => ({ text, of: null });
  const level: HeadlinePart = { text: capPhrase(cap), of: 'level' };
  if (!(watts.p95 > 0)) return [plain('Holds nothing '), level, plain('.')];
  return [
    plain(`Holds ${hedge(watts)}`),
    { text: `${wattsText(watts.p50)} W`, of: 'watts' },
    plain(' '),
    level,
    plain(`, ${bandText(watts)}: held back by ${heldBack}.`),
  ];
}

/** Below this share of what the cooling carries the machine's own limits are what holds it back. */
const CUT = 0.97;

/** What stands behind the headline: the split, each die alone, what the setting leaves, what more noise brings. */
export function reasonsOf(main: CapVerdict, at: readonly CapVerdict[]): string[] {
  const out: string[] = [];
  if (main.cpuW > 0 && main.gpuW > 0) out.push(`${splitWords(main.cpuW, main.gpuW)} together.`);
  const alone = [
    main.cpuAlone && `${wattsText(main.cpuAlone.p50)} W for the CPU alone`,
    main.gpuAlone && `${wattsText(main.gpuAlone.p50)} W for the GPU alone`,
  ].filter(Boolean);
  if (alone.length > 0) out.push(`${alone.join(', ')}.`);
  if (main.configured.p50 < CUT * main.watts.p50) {
    out.push(
      `As it is set it runs ${wattsText(main.configured.p50)} W: limits of firmware or adapter, not the cooling.`,
    );
  }
  const levels = at.filter((a) => typeof a.cap === 'number');
  const [quiet, loud] = [levels[0], levels[levels.length - 1]];
  if (quiet && loud && quiet !== loud) {
    const more = loud.watts.p50 - quiet.watts.p50;
    out.push(`From ${quiet.cap} to ${loud.cap} dB(A) it gains ${wattsText(Math.max(0, more))} W.`);
  }
  return out;
}
