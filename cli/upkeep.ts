import { resolve } from 'node:path';

const MB = 1024 * 1024;

/** What a command prints, and its exit code. */
export interface Said {
  stdout: string;
  stderr: readonly string[];
  code: number;
}

/** The data folder that commands work on, as the server does. */
export const dataFolderOf = (env: NodeJS.ProcessEnv): string =>
  resolve(env['ZUGLUFT_DATA'] ?? 'data');

export const megabytes = (bytes: number): string => `${(bytes / MB).toFixed(1)} MB`;

/** One file and some flags; null where something else was said. */
export function fileAndFlags(
  args: readonly string[],
  known: readonly string[],
): { file: string; flags: ReadonlySet<string> } | null {
  const flags = new Set(args.filter((a) => a.startsWith('--')));
  const files = args.filter((a) => !a.startsWith('--'));
  const [file] = files;
  if (file === undefined || file === '' || files.length > 1) return null;
  return [...flags].every((f) => known.includes(f)) ? { file, flags } : null;
}
