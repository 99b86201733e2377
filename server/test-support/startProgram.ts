import type { ChildProcess } from 'node:child_process';
import { startedProgram, type Program } from './program';

const started: ChildProcess[] = [];
// one that a failed test left running would keep the tests from ending
afterAll(() => {
  for (const child of started) child.kill('SIGKILL');
});

/** The program itself in a process of its own, on any free port; it does not outlive the tests of a file. */
export const startProgram = (folder: string): Promise<Program> =>
  startedProgram(folder, (child) => started.push(child));
