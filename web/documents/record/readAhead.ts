import { readMachine, type BandedMachine } from '../../api/machines';
import { onWrite } from '../../api/http';

/** What was read ahead is taken for new for so long, ms. */
const NEW_FOR_MS = 2000;

let ahead: { id: string; at: number; machine: Promise<BandedMachine> } | null = null;
onWrite(() => (ahead = null));

const isNew = (id: string) => ahead?.id === id && performance.now() - ahead.at < NEW_FOR_MS;

/** Reads a machine that somebody is about to open: the pointer or the focus is on its name. */
export function readAhead(id: string): void {
  if (isNew(id)) return;
  const machine = readMachine(id);
  ahead = { id, at: performance.now(), machine };
  // whoever opens it asks again and hears why
  machine.catch(() => (ahead = null));
}

/** A machine as it was just read ahead, or as it is read now. */
export function readOpened(id: string): Promise<BandedMachine> {
  const machine = isNew(id) ? ahead!.machine : readMachine(id);
  ahead = null;
  return machine;
}
