import type { Database } from '@zugluft/server/database/openDatabase';
import { createMachineStore } from '@zugluft/server/machines/machineStore';
import { DEMO_MACHINES } from './machines';

/**
 * Fills an empty library with the demo machines; a library that holds anything is left as it is.
 *
 * @returns how many machines were added
 */
export async function seedDemo(db: Database): Promise<number> {
  if ((await db.models.Machine.count()) > 0) return 0;
  const store = createMachineStore(db);
  for (const record of DEMO_MACHINES) await store.create(record);
  return DEMO_MACHINES.length;
}
