import { useState } from 'react';

/** What stands in fields that are not part of a record yet: kept in this browser, so that a reload loses nothing. */
export function useKeptText(key: string): [string[], (next: string[]) => void] {
  const [texts, setTexts] = useState(() => readTexts(key));
  return [
    texts,
    (next) => {
      setTexts(next);
      keepTexts(key, next);
    },
  ];
}

export function readTexts(key: string): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? '[]');
    return Array.isArray(kept) ? kept.map((x) => (typeof x === 'string' ? x : '')) : [];
  } catch {
    return [];
  }
}

export function keepTexts(key: string, texts: readonly string[]): void {
  try {
    if (texts.some((t) => t !== '')) localStorage.setItem(key, JSON.stringify(texts));
    else localStorage.removeItem(key);
  } catch {
    // storage is switched off: the page itself still holds them
  }
}
