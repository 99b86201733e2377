import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';

/** The program in a process of its own, and where it answers. */
export interface Program {
  child: ChildProcess;
  address: string;
}

/**
 * Starts the program itself on any free port, and waits until it answers.
 *
 * @param folder its data
 * @param told of the process at once, before it answers
 * @throws Error with what it said where it does not start
 */
export async function startedProgram(
  folder: string,
  told: (child: ChildProcess) => void = () => undefined,
): Promise<Program> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    cwd: join(import.meta.dirname ?? __dirname, '../..'),
    env: { ...process.env, ZUGLUFT_DATA: folder, ZUGLUFT_PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  told(child);
  let said = '';
  for await (const part of child.stdout!) {
    said += String(part);
    const address = /http:\/\/\S+/.exec(said)?.[0];
    if (address) return { child, address };
  }
  throw new Error(`it did not start: ${said}`);
}
