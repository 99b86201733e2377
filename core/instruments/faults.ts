import { figureValue } from '../record/figure';
import { withMentions } from '../record/mentions';
import { parseRecord } from '../record/parseRecord';
import type { CaseRecord } from '../record/recordSchema';

/** What may be wrong with a simulated machine while nothing in its record says so. */
export type Fault =
  | { kind: 'dead-fan'; fan: string }
  | { kind: 'dry-pipe'; pipe: string }
  /** A firmware that gives the CPU less after some time of load. */
  | { kind: 'firmware-drop'; afterS: number; cpuW: number };

/** A fan that stands still lets next to nothing through. */
const STANDS_RPM = 200;

/**
 * A machine with a fault, as a record of how it really is.
 *
 * @param record as recorded
 * @param fault what is wrong
 * @throws RangeError in words where the machine has no such part, or nothing of it would be left
 */
export function withFault(record: CaseRecord, fault: Fault): CaseRecord {
  const changed = applied(record, fault);
  const { issues, complete } = parseRecord(JSON.parse(JSON.stringify(changed)));
  if (!complete) throw new RangeError(issues[0]?.message ?? 'nothing of the machine would be left');
  return changed;
}

function applied(record: CaseRecord, fault: Fault): CaseRecord {
  if (fault.kind === 'dead-fan') {
    if (!record.fans?.some((f) => f.id === fault.fan)) throw missing('fan', fault.fan);
    return {
      ...record,
      fans: record.fans.map((f) =>
        f.id === fault.fan ? { ...f, maxRpm: STANDS_RPM, minRpm: undefined, curve: undefined } : f,
      ),
    } as CaseRecord;
  }
  if (fault.kind === 'dry-pipe') {
    const dry = record.heatPipes?.find((p) => p.id === fault.pipe);
    if (!record.heatPipes || !dry) throw missing('heat pipe', fault.pipe);
    const count = figureValue(dry.count) ?? 1;
    // of several alike one is dry
    if (count > 1) {
      const fewer = record.heatPipes.map((p) => (p === dry ? { ...p, count: count - 1 } : p));
      return { ...record, heatPipes: fewer };
    }
    if (record.heatPipes.length === 1) throw new RangeError('its only heat pipe cannot be dry');
    const rest = withMentions(record, 'heatPipes', fault.pipe, null);
    return { ...rest, heatPipes: record.heatPipes.filter((p) => p.id !== fault.pipe) };
  }
  const settings = record.settings?.length ? record.settings : [{ id: 'own' }];
  return {
    ...record,
    settings: settings.map((s) => ({
      ...s,
      later: { afterS: fault.afterS, cpuSustainedW: fault.cpuW },
    })),
  };
}

const missing = (kind: string, id: string) => new RangeError(`there is no ${kind} called “${id}”`);
