/**
 * How an answer is asked for that the page computes by itself: also without a network, since no one else is asked, and once, since
 * the same question has the same answer.
 */
export const COMPUTED_HERE = { networkMode: 'always', retry: false, gcTime: 0 } as const;
