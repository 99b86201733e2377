/** What this browser knows of who guesses: a name, machines uncovered without a guess, whether the house last asked. */

const NAME = 'zugluft.reviewer';
const UNCOVERED = 'zugluft.uncovered';
const ASKS = 'zugluft.asks-guess';
/** Machines that are remembered as uncovered, the newest. */
const MOST = 500;

function read(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

function write(key: string, text: string): void {
  try {
    localStorage.setItem(key, text);
  } catch {
    // without storage it lasts until the page closes
  }
}

/** Who guessed here last; empty where nobody did. */
export const lastReviewer = (): string => read(NAME) ?? '';
export const keepReviewer = (name: string): void => write(NAME, name);

/** Whether the house asked for guesses when this browser last knew: so that no answer shows before that is known anew. */
export const askedBefore = (): boolean => read(ASKS) === '1';
export const keepAsked = (asks: boolean): void => write(ASKS, asks ? '1' : '0');

function uncoveredIds(): string[] {
  try {
    const ids: unknown = JSON.parse(read(UNCOVERED) ?? '[]');
    return Array.isArray(ids) ? ids.filter((id) => typeof id === 'string') : [];
  } catch {
    return [];
  }
}

/** Whether a machine was uncovered here without a guess. */
export const isUncovered = (machineId: string): boolean => uncoveredIds().includes(machineId);

/** Remembers that it was. */
export const keepUncovered = (machineId: string): void =>
  write(
    UNCOVERED,
    JSON.stringify([...uncoveredIds().filter((id) => id !== machineId), machineId].slice(-MOST)),
  );
