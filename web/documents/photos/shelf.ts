import { createStore, del, entries, set } from 'idb-keyval';

/** A photo that waits for the server, as it lies in this browser's database. */
export interface Shelved {
  id: string;
  machineId: string;
  path: string;
  file: File;
}

/** Where photos wait that the server does not have yet, so that a closed page or a power cut loses none. */
export interface Shelf {
  /** False where this browser keeps nothing: the photo then waits in the page alone. */
  put(item: Shelved): Promise<boolean>;
  drop(id: string): Promise<void>;
  /** Those of one machine. */
  of(machineId: string): Promise<Shelved[]>;
}

let store: ReturnType<typeof createStore> | null = null;
const place = () => (store ??= createStore('zugluft-photos', 'waiting'));

/** The shelf in this browser's own database. */
export const browserShelf: Shelf = {
  async put(item) {
    try {
      await set(item.id, item, place());
      return true;
    } catch {
      return false;
    }
  },
  async drop(id) {
    try {
      await del(id, place());
    } catch {
      // it is sent once more when the page opens; the server knows it by its id
    }
  },
  async of(machineId) {
    try {
      const all = await entries<string, Shelved>(place());
      return all.map(([, item]) => item).filter((i) => i.machineId === machineId);
    } catch {
      return [];
    }
  },
};
