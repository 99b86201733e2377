import { useSearchParams } from 'react-router';

/**
 * Puts one word of the view into the address, in place of the entry there. Two that are set in quick succession both stand there: it
 * goes by the address itself, not by the one that was last drawn.
 *
 * @returns sets a word by its name; null takes it out
 */
export function useSetAddress(): (name: string, value: string | null) => void {
  const [, setParams] = useSearchParams();
  return (name, value) =>
    setParams(
      () => {
        const now = new URLSearchParams(window.location.search);
        if (value === null) now.delete(name);
        else now.set(name, value);
        return now;
      },
      { replace: true },
    );
}
