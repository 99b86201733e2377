import { UnusableLibrary } from './database/unusable';
import { accessOf } from './security/access';
import { startServer, type Running, type ServerOptions } from './start';

/** What keeps a port from being opened, in words. */
const PORT_WORDS: Record<string, string> = {
  EADDRINUSE: 'is in use by another program: end that, or choose another one with ZUGLUFT_PORT',
  EADDRNOTAVAIL: 'cannot be opened at ZUGLUFT_HOST, which is no address of this machine',
  EACCES: 'may not be opened by this user: choose one above 1023 with ZUGLUFT_PORT',
};

/**
 * Runs the server until it is told to stop, as a program that somebody started: what keeps it from starting is said in words.
 */
export async function serve(options: Omit<ServerOptions, 'access'>): Promise<void> {
  let running: Running;
  try {
    running = await startServer({ ...options, access: await accessOf(process.env) });
  } catch (cause) {
    const { code } = cause as { code?: string };
    const port = PORT_WORDS[code ?? ''];
    if (!(cause instanceof UnusableLibrary) && !port) throw cause;
    process.stderr.write(`${port ? `Port ${options.port} ${port}.` : (cause as Error).message}\n`);
    process.exit(1);
  }
  // every statement makes a trace; to map each back to its source would take as long as the statement
  process.setSourceMapsEnabled(false);
  let stopping = false;
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => {
      // asked twice, it does not wait for what is under way
      if (stopping) process.exit(1);
      stopping = true;
      void running.stop().then(() => process.exit(0));
    });
  }
  process.stdout.write(`Zugluft runs at ${running.address}\n`);
}
