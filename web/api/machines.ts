import type { Machine, MachineSummary, Page, Unit } from '@zugluft/core/library/answers';
import { fetchJson } from './http';

export type { Machine, MachineSummary, Unit };
export type MachinePage = Page<MachineSummary>;

export const machineKeys = {
  list: (params: string) => ['machines', 'list', params] as const,
  one: (id: string) => ['machines', 'one', id] as const,
};

export const listMachines = (params: string, signal?: AbortSignal) =>
  fetchJson<MachinePage>(`/api/machines?${params}`, signal ? { signal } : {});
export const readMachine = (id: string) => fetchJson<Machine>(`/api/machines/${id}`);
export const createMachine = (record: unknown) =>
  fetchJson<Machine>('/api/machines', { method: 'POST', body: { record } });
export const saveMachine = (id: string, revision: number, record: unknown) =>
  fetchJson<Machine>(`/api/machines/${id}`, { method: 'PUT', body: { record }, ifMatch: revision });
export const putAside = (id: string) =>
  fetchJson<Machine>(`/api/machines/${id}/put-aside`, { method: 'POST' });
export const bringBack = (id: string) =>
  fetchJson<Machine>(`/api/machines/${id}/bring-back`, { method: 'POST' });

export const listTags = () =>
  fetchJson<{ items: { tag: string; count: number }[] }>('/api/machines/tags');
export const changeTags = (ids: readonly string[], add: string[], remove: string[]) =>
  fetchJson<{ machines: number }>('/api/machines/tags', {
    method: 'POST',
    body: { ids, add, remove },
  });
