import type { Response } from 'supertest';

/** Reads an answer as its bytes, whatever it says it is: `.buffer(true).parse(asBytes)`. */
export function asBytes(answer: Response, done: (error: Error | null, body: Buffer) => void): void {
  const chunks: Buffer[] = [];
  answer.on('data', (chunk: Buffer) => chunks.push(chunk));
  answer.on('end', () => done(null, Buffer.concat(chunks)));
}
