/** Address of the overview, where the program begins. */
export const OVERVIEW = '/';

/** Address of the library. */
export const LIBRARY = '/library';

/** Goes with the address of the library for import and export to stand open there. */
export const WITH_EXCHANGE = { state: { exchange: true } };

/** Whether another page asked the library for import and export. */
export const exchangeAsked = (state: unknown): boolean =>
  (state as { exchange?: unknown } | null)?.exchange === true;

/** Address of the library, sorted from the machine that has some watts most quietly. */
export const quietestFor = (watts: number): string =>
  `${LIBRARY}?needW=${watts}&sort=quietFor${watts}W`;

/** Where the start page leads with an address that asks for a view of the library, which stood there before; null for none. */
export const oldLibraryAddress = (search: string): string | null =>
  search.length > 1 ? `${LIBRARY}${search}` : null;
