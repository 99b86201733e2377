import { useEffect, useRef, useState } from 'react';
import { browserTextShelf, type TextShelf } from './keptTexts';

let shared: TextShelf | null = null;
const browserShelf = () => (shared ??= browserTextShelf());

/**
 * What stands in fields that are not part of a document yet: kept in this browser's database, so that a reload loses nothing.
 *
 * @returns the texts, how to set them, and whether they are kept; while they are not, leaving the page is asked about
 */
export function useKeptText(
  key: string,
  shelf?: TextShelf,
): [texts: string[], set: (next: string[]) => void, kept: boolean] {
  const [texts, setTexts] = useState<string[]>([]);
  const [kept, setKept] = useState(true);
  const typed = useRef(false);
  const latest = useRef<readonly string[]>(texts);
  const on = useRef(shelf);
  useEffect(() => {
    let gone = false;
    typed.current = false;
    void (on.current ?? browserShelf())
      .read(key)
      // what is typed meanwhile is newer
      .then((found) => !gone && !typed.current && setTexts(found))
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [key]);
  const lost = !kept && texts.some((t) => t !== '');
  useEffect(() => {
    if (!lost) return;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [lost]);
  return [
    texts,
    (next) => {
      typed.current = true;
      latest.current = next;
      setTexts(next);
      (on.current ?? browserShelf())
        .keep(key, next)
        .then(() => latest.current === next && setKept(true))
        .catch(() => setKept(false));
    },
    !lost,
  ];
}
