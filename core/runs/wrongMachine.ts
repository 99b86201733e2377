import type { OpenCase } from '../case/openCase';
import type { Log } from '../logs/readLog';
import { valuesOf } from './channels';

/** A die that draws more than this is there (common practice, no source). */
const DRAWS_W = 12;
/** Hotter than its limit by more than this no firmware lets a die get; faster than its fan by this share no fan turns. */
const OVER_K = 6;
const OVER_SPEED = 1.15;
/** A reading that stands alone is a fault of its logger. */
const SHARE = 0.01;

/**
 * What of a log cannot be of a machine, in words: a die that the record does not have, one far over its limit, fans faster than theirs.
 *
 * @param log of a run, channels already of the record's parts
 * @param open the case
 */
export function wrongMachine(
  log: Pick<Log, 'columns' | 'lines'>,
  { data }: Pick<OpenCase, 'data'>,
): { row: number; column: string; message: string }[] {
  const out: { row: number; column: string; message: string }[] = [];
  const over = (is: string, most: number, message: string) => {
    const values = valuesOf(log, is);
    if (!values) return;
    const above = values.reduce((n, x) => (x > most ? n + 1 : n), 0);
    if (above <= SHARE * values.length) return;
    const at = values.findIndex((x) => x > most);
    const { column } = log.columns.find((c) => c.is === is)!;
    out.push({ row: log.lines[at] ?? 1, column, message });
  };
  for (const role of ['cpu', 'gpu'] as const) {
    const name = role.toUpperCase();
    const die = data.dies.find((d) => d.role === role);
    if (!die) {
      over(
        `${role}PowerW`,
        DRAWS_W,
        `a ${name} is loaded and the record has none: is this another machine’s log?`,
      );
    } else {
      const limit = `its limit in the record is ${die.maxJunctionC} °C`;
      over(
        `${role}C`,
        die.maxJunctionC + OVER_K,
        `${name} is hotter than it may be, ${limit}: is this another machine’s log?`,
      );
    }
  }
  for (const f of data.fans) {
    const most = `its most in the record is ${f.maxRpm.toFixed(0)} rpm`;
    over(
      `fanRpm.${f.id}`,
      OVER_SPEED * f.maxRpm,
      `${f.id} turns faster than it can, ${most}: is this another machine’s log?`,
    );
  }
  return out;
}
