import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { Guesses } from '@zugluft/core/opinion/guesses';
import { keeperOf } from '../keepers';

const keyOf = (machineId: string) => ['machines', 'guesses', machineId] as const;

/** What was guessed of a machine, as this browser has it. */
export function useGuesses(machineId: string, enabled: boolean) {
  return useQuery({
    queryKey: keyOf(machineId),
    queryFn: async (): Promise<Guesses> => (await keeperOf('guesses', machineId)).view().value,
    enabled,
    retry: false,
    networkMode: 'always',
  });
}

/** Adds a guess, kept at once and sent as anything that is typed. */
export function useAddGuess(machineId: string) {
  const client = useQueryClient();
  return async (by: string, cap: Cap, watts: number): Promise<void> => {
    const keeper = await keeperOf('guesses', machineId);
    const guess = { id: crypto.randomUUID(), by, at: new Date().toISOString(), cap, watts };
    keeper.change((g) => ({ ...g, guesses: [...g.guesses, guess] }));
    client.setQueryData(keyOf(machineId), keeper.view().value);
    await keeper.flush();
    void client.invalidateQueries({ queryKey: ['guesses'] });
  };
}
