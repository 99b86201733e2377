/** Editions of a machine; more of them nobody reads. */
export const MAX_EDITIONS = 500;
