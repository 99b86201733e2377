/** What dies draw that are not loaded, W (common practice, no source). */
export const IDLE_W = { cpu: 5, gpu: 3 } as const;
