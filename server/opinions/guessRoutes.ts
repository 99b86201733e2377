import { Router } from 'express';
import { z } from 'zod';
import { parse } from '../security/parse';
import type { GuessList } from './guessList';

export const guessQuery = z.strictObject({
  page: z.coerce.number().int().min(1).max(10_000).default(1),
});

/** Route under /api/guesses: what was guessed in the whole library, and how well each person guesses. */
export function guessRoutes(guesses: GuessList): Router {
  const router = Router();
  router.get('/', async (req, res) => {
    res.json(await guesses(parse(guessQuery, req.query).page));
  });
  return router;
}
