import { useEffect, useState } from 'react';

/**
 * A text that stands in the address and is typed or chosen: what the hand did shows at once, the address follows when what hangs
 * on it is drawn, and a text that comes from elsewhere (a link, the way back) is taken over.
 *
 * @param stands the text in the address
 * @param follow puts a text there
 * @returns what is shown, and how it is changed
 */
export function useAddressText(
  stands: string,
  follow: (text: string) => void,
): [shown: string, type: (text: string) => void] {
  const [typed, setTyped] = useState<string | null>(null);
  // the address has caught up with the hand: it is the one that tells from now on
  useEffect(() => {
    // unless a letter has come meanwhile
    setTyped((now) => (now === stands ? null : now));
  }, [typed, stands]);
  return [
    typed ?? stands,
    (text) => {
      setTyped(text);
      follow(text);
    },
  ];
}
