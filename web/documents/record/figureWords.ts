import type { KindName } from '@zugluft/core/documents/kinds';
import { figureWords, plainWord } from '@zugluft/core/record/figureWords';

export { figureWords, plainWord, unitAt } from '@zugluft/core/record/figureWords';

/** What one entry of a log is called. */
export const LOG_WORDS: Readonly<Record<string, string>> = {
  steps: 'step',
  groups: 'group',
  screws: 'screw',
  connectors: 'connector',
  parts: 'part',
  strips: 'strip',
  layers: 'layer',
};

/** A path of any other document in words: “screws, step 3” for `steps.step3.screws`, “caps levels” for `caps.levelsDbA`. */
export function documentPathWords(path: string): string {
  const [list = '', id, ...fields] = path.split('.');
  // made by the program, and nobody’s word for anything
  if (id !== undefined && holdsInnerName(id)) {
    return [...fields.map(plainWord), plainWord(list.replace(/s$/, ''))].join(', ');
  }
  const entry = LOG_WORDS[list];
  if (!entry || id === undefined) return path.split('.').map(plainWord).join(', ');
  return [...fields.map(plainWord), entryWords(entry, id)].join(', ');
}

/** Whether words hold a name that only the program knows something by. */
export const holdsInnerName = (words: string): boolean =>
  /\b[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}\b/i.test(words);

/** An entry of a log by its inner name: “screw 11” for `s11`, “step battery out” for `battery-out`. */
export const entryWords = (entry: string, id: string): string =>
  `${entry} ${/^[a-z]+-?(\d+)$/.exec(id)?.[1] ?? id.replace(/-/g, ' ')}`;

/** How paths of a kind of document are said. */
export const pathWordsOf = (kind: KindName): ((path: string) => string) =>
  kind === 'record' || kind === 'defaults' ? figureWords : documentPathWords;

/** Which step of a machine's file shows the figure at a path. */
export function stepOfFigure(path: string): 'identify' | 'outside' | 'cooling' {
  const first = path.split('.')[0];
  if (first === 'power' || first === 'settings' || first === 'identity') return 'identify';
  return first === 'shell' || first === 'room' || first === 'noise' ? 'outside' : 'cooling';
}
