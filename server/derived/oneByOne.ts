/** Runs work one after the other; what nobody waits for any more when its turn comes is left out. */
export type OneByOne = <T>(work: () => Promise<T>, wanted?: AbortSignal) => Promise<T>;

/** A line of its own, in which work waits for its turn. One that fails holds up no other. */
export function createOneByOne(): OneByOne {
  let tail: Promise<unknown> = Promise.resolve();
  return (work, wanted) => {
    const result = tail.then(() => {
      wanted?.throwIfAborted();
      return work();
    });
    tail = result.catch(() => undefined);
    return result;
  };
}
