import { AsyncLocalStorage } from 'node:async_hooks';

const writers = new AsyncLocalStorage<string | null>();

/** Does something in the name of who signed in; all that it leads to is theirs. */
export const writtenBy = <T>(name: string | null, work: () => T): T => writers.run(name, work);

/** Who signed in and asked for what is being done; null where nobody signs in. */
export const writer = (): string | null => writers.getStore() ?? null;
