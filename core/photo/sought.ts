/** What is sought in a photo, one after the other: each takes a second. */
export const SOUGHT = ['circles', 'fins', 'pipes'] as const;
export type Sought = (typeof SOUGHT)[number];
