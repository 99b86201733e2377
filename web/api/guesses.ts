import type { GuessPage } from '@zugluft/core/opinion/hits';
import { fetchJson } from './http';

export type { GuessPage };

export const guessKeys = { page: (page: number) => ['guesses', page] as const };

/** What was guessed in the whole library, the newest first, and how well each person guesses. */
export const listGuesses = async (page: number, signal?: AbortSignal): Promise<GuessPage> =>
  fetchJson(`/api/guesses?page=${page}`, signal ? { signal } : {});
