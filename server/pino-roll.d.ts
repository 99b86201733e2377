declare module 'pino-roll' {
  import type { EventEmitter } from 'node:events';

  /** A stream into files that roll, as the package has it; its types are not shipped. */
  interface Rolling extends EventEmitter {
    write(text: string): void;
    end(): void;
  }
  export default function openRolling(options: {
    file: string;
    extension: string;
    size: string;
    limit: { count: number };
    /** Bytes that are written together, and after how many ms what is fewer is written. */
    minLength: number;
    periodicFlush: number;
  }): Promise<Rolling>;
}
