import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { SNAPSHOT } from './writeBackup';

/** How a backup is called that is on its way in. */
export const UPLOADED = '.uploaded-';
/** No backup takes longer: what is older was cut off. One that a command is writing meanwhile stays. */
const CUT_OFF_MS = 86_400_000;

/** Removes what backups that were cut off left in a data folder; for whoever holds it. */
export async function tidyBackups(dataFolder: string, now = Date.now()): Promise<void> {
  for (const name of await readdir(dataFolder).catch(() => [])) {
    const path = join(dataFolder, name);
    const isOld = async () => now - (await stat(path)).mtimeMs > CUT_OFF_MS;
    if (name.startsWith(UPLOADED) || (name.startsWith(SNAPSHOT) && (await isOld()))) {
      await rm(path, { force: true });
    }
  }
}
