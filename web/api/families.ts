import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import type { FamilyMember, Machine } from '@zugluft/core/library/answers';
import { fetchJson } from './http';

export const familyKeys = {
  family: (id: string) => ['machines', 'family', id] as const,
};

export const listFamily = (id: string) =>
  fetchJson<{ items: FamilyMember[] }>(`/api/machines/${id}/family`);
export const addState = (id: string, name: string) =>
  fetchJson<Machine>(`/api/machines/${id}/states`, { method: 'POST', body: { name } });
export const addUnit = (id: string, facts: UnitFacts) =>
  fetchJson<Machine>(`/api/machines/${id}/units`, { method: 'POST', body: facts });
export const addVariant = (id: string, name: string) =>
  fetchJson<Machine>(`/api/machines/${id}/variants`, { method: 'POST', body: { name } });
export const renameState = (id: string, revision: number, name: string) =>
  fetchJson<Machine>(`/api/machines/${id}/state-name`, {
    method: 'PUT',
    body: { name },
    ifMatch: revision,
  });
