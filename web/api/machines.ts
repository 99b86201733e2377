import type {
  Machine,
  MachinePage,
  MachineSummary,
  BandedMachine,
} from '@zugluft/core/library/answers';
import { fetchJson } from './http';

export type { Machine, MachinePage, MachineSummary, BandedMachine };

export const machineKeys = {
  list: (params: string) => ['machines', 'list', params] as const,
  one: (id: string) => ['machines', 'one', id] as const,
};

export const listMachines = (params: string, signal?: AbortSignal) =>
  fetchJson<MachinePage>(`/api/machines?${params}`, signal ? { signal } : {});
/** What an earlier program answered, and is shown while the server is away, has no bands. */
export const readMachine = async (id: string): Promise<BandedMachine> => ({
  bands: [],
  ...(await fetchJson<Machine & Partial<BandedMachine>>(`/api/machines/${id}`)),
});
export const createMachine = (record: unknown) =>
  fetchJson<Machine>('/api/machines', { method: 'POST', body: { record } });
export const putAside = (id: string, revision: number) =>
  fetchJson<Machine>(`/api/machines/${id}/put-aside`, { method: 'POST', ifMatch: revision });
export const bringBack = (id: string, revision: number) =>
  fetchJson<Machine>(`/api/machines/${id}/bring-back`, { method: 'POST', ifMatch: revision });

export const listTags = () =>
  fetchJson<{ items: { tag: string; count: number }[] }>('/api/machines/tags');
export const changeTags = (ids: readonly string[], add: string[], remove: string[]) =>
  fetchJson<{ machines: number }>('/api/machines/tags', {
    method: 'POST',
    body: { ids, add, remove },
  });
