import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import { fetchJson } from './http';

export interface Unit {
  id: string;
  revision: number;
  facts: UnitFacts;
}

export interface Machine {
  id: string;
  revision: number;
  record: CaseRecord;
  complete: boolean;
  variantId: string;
  unit: Unit;
  stateName: string;
  createdAt: string;
  updatedAt: string;
  putAsideAt: string | null;
}

export interface MachineSummary {
  id: string;
  maker: string;
  model: string;
  variant: string;
  stateName: string;
  complete: boolean;
  fans: number;
  pipes: number;
  stacks: number;
  chamber: boolean;
  finAreaCm2: number | null;
  thicknessMm: number | null;
  massKg: number | null;
  togetherAt28W: number | null;
  togetherAt32W: number | null;
  togetherAt36W: number | null;
  togetherAt40W: number | null;
  togetherAt45W: number | null;
  togetherFullW: number | null;
  tags: string[];
  updatedAt: string;
}

export interface MachinePage {
  items: MachineSummary[];
  total: number;
  page: number;
  pageSize: number;
}

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
