/** A library that this program cannot open without harm, in words. */
export class UnusableLibrary extends Error {}

const RESTORE =
  'Nothing was changed. Restore a backup into another folder, or put the library file back from one.';

/** Words for a library file that is damaged. */
export const damagedWords = (what: string): string =>
  `The library file is damaged (${what}). ${RESTORE}`;

const codeOf = (cause: unknown): string => {
  const { code, original, parent } = cause as {
    code?: string;
    original?: { code?: string };
    parent?: { code?: string };
  };
  return original?.code ?? parent?.code ?? code ?? '';
};

/** Whether something failed since no room is left on the disk. */
export const isDiskFull = (cause: unknown): boolean =>
  ['SQLITE_FULL', 'ENOSPC', 'EDQUOT'].includes(codeOf(cause));

/** What keeps a library from being opened, in words; anything else as it was thrown. */
export function inWords(cause: unknown, folder: string): unknown {
  if (cause instanceof UnusableLibrary) return cause;
  if (isDiskFull(cause)) {
    return new UnusableLibrary(
      `The disk under ${folder} is full, so that the library cannot be opened. Nothing was changed. Make room, then start again.`,
    );
  }
  switch (codeOf(cause)) {
    case 'SQLITE_NOTADB':
    case 'SQLITE_CORRUPT':
      return new UnusableLibrary(damagedWords((cause as Error).message));
    case 'SQLITE_READONLY':
    case 'SQLITE_CANTOPEN':
    case 'SQLITE_PERM':
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
      return new UnusableLibrary(
        `The folder ${folder} cannot be written, so that nothing could be kept in it. Nothing was changed. Give this user the right to write there, or choose another folder with ZUGLUFT_DATA.`,
      );
    case 'SQLITE_BUSY':
    case 'SQLITE_LOCKED':
      return new UnusableLibrary(
        `The library in ${folder} is in use by another program. Nothing was changed. End that first.`,
      );
    case 'ENOTDIR':
    case 'EEXIST':
      return new UnusableLibrary(`${folder} is no folder. Choose another one with ZUGLUFT_DATA.`);
    default:
      return cause;
  }
}
