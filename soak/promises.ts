import { createHash } from 'node:crypto';
import type { Tally } from './tally';

/** What the program said is kept: looked for after each kill. */
export type Promised =
  | { what: 'write'; machine: string; revision: number; variant: string }
  | { what: 'machine'; machine: string }
  | { what: 'photo'; machine: string; photo: string; sha256: string };

const AT_ONCE = 8;

/**
 * Looks for what was acknowledged, and counts what is not there.
 *
 * @param address of the program
 * @param promised what it acknowledged
 */
export async function lookFor(
  address: string,
  promised: readonly Promised[],
  tally: Tally,
): Promise<void> {
  let next = 0;
  const look = async () => {
    for (let p = promised[next++]; p; p = promised[next++]) {
      const problem = await missing(address, p);
      if (problem) tally.lost.push(`${JSON.stringify(p)}: ${problem}`);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, look));
}

/** Where of its machine it is kept. */
function under(p: Promised): string {
  if (p.what === 'write') return `/revisions/${p.revision}`;
  return p.what === 'photo' ? `/attachments/${p.photo}/content` : '';
}

async function missing(address: string, p: Promised): Promise<string | null> {
  const answer = await fetch(`${address}/api/machines/${p.machine}${under(p)}`);
  if (!answer.ok) return `answered ${answer.status}`;
  if (p.what === 'photo') {
    const bytes = Buffer.from(await answer.arrayBuffer());
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    return sha256 === p.sha256 ? null : 'other bytes';
  }
  const { record } = (await answer.json()) as { record: { identity?: { variant?: string } } };
  if (p.what === 'machine') return null;
  const { variant } = record.identity ?? {};
  return variant === p.variant ? null : `holds ${variant}`;
}
