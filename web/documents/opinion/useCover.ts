import { useEffect, useState } from 'react';
import { guessedBy } from '@zugluft/core/opinion/guesses';
import { useLabSettings } from '../useLaboratory';
import { askedBefore, isUncovered, keepAsked, keepUncovered, lastReviewer } from './reviewer';
import { useGuesses } from './useGuesses';

/** What stands over a machine's answer: nothing, a cover while it is not known whether somebody guessed, or a question. */
export type Cover = 'none' | 'reading' | 'asks';

/**
 * Whether a machine's answer is covered: where the house asks each reviewer for a guess first, until this one guessed or uncovered it
 * without.
 *
 * @param made the machine is on the server
 */
export function useCover(machineId: string, made: boolean) {
  const { settings, ready } = useLabSettings();
  const asks = ready ? settings.felt.ask : askedBefore();
  useEffect(() => {
    if (ready) keepAsked(settings.felt.ask);
  }, [ready, settings.felt.ask]);
  const [skipped, setSkipped] = useState(() => isUncovered(machineId));
  const { data, isPending } = useGuesses(machineId, asks && made && !skipped);
  const who = lastReviewer();
  const state = (): Cover => {
    if (!asks || skipped || !made) return 'none';
    if (isPending) return 'reading';
    // what could not be read covers nothing
    if (!data || (who !== '' && guessedBy(data, who))) return 'none';
    return 'asks';
  };
  return {
    cover: state(),
    uncover: () => {
      keepUncovered(machineId);
      setSkipped(true);
    },
  };
}
