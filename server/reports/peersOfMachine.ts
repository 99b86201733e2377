import { bandColumn, wattsColumn, type MachineSummary } from '@zugluft/core/library/answers';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { peersOf, type PeerRow, type Peers } from '@zugluft/core/verdict/peers';

/**
 * The machines of the library that are held against one, at a cap of the laboratory.
 *
 * @param rows of the library
 * @returns null where the machine has no watts at the cap (yet)
 */
export function peersOfMachine(
  rows: readonly MachineSummary[],
  id: string,
  cap: Cap,
): Peers | null {
  const own = rows.find((r) => r.id === id);
  const ownRow = own && peerRow(own, cap);
  if (!ownRow) return null;
  return peersOf(
    ownRow,
    rows.flatMap((r) => {
      const row = r.id !== id && r.putAsideAt === null ? peerRow(r, cap) : null;
      return row ? [row] : [];
    }),
  );
}

function peerRow(row: MachineSummary, cap: Cap): PeerRow | null {
  const p50 = row[wattsColumn(cap)];
  const p05 = row[bandColumn(cap, 'P05')];
  const p95 = row[bandColumn(cap, 'P95')];
  const known = [p50, p05, p95].every((x) => typeof x === 'number');
  if (!known) return null;
  return {
    id: row.id,
    name: [row.maker, row.model, row.variant].filter(Boolean).join(' ') || 'Unnamed machine',
    band: { p05: p05!, p50: p50!, p95: p95! },
    watts: p50!,
    thicknessMm: row.thicknessMm ?? undefined,
    massKg: row.massKg ?? undefined,
  };
}
