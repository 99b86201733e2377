import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import type {
  FamilyMember,
  Machine,
  OldRecord,
  Page,
  RevisionSummary,
  Unit,
} from '@zugluft/core/library/answers';
import { fetchJson } from './http';

export const familyKeys = {
  family: (id: string) => ['machines', 'family', id] as const,
  revisions: (id: string, page: number, revision: number) =>
    ['machines', 'revisions', id, page, revision] as const,
};

export const listFamily = (id: string) =>
  fetchJson<{ items: FamilyMember[] }>(`/api/machines/${id}/family`);
export const addState = (id: string, name: string) =>
  fetchJson<Machine>(`/api/machines/${id}/states`, { method: 'POST', body: { name } });
export const addUnit = (id: string, facts: UnitFacts) =>
  fetchJson<Machine>(`/api/machines/${id}/units`, { method: 'POST', body: facts });
export const addVariant = (id: string, name: string) =>
  fetchJson<Machine>(`/api/machines/${id}/variants`, { method: 'POST', body: { name } });
export const renameState = (id: string, name: string) =>
  fetchJson<Machine>(`/api/machines/${id}/state-name`, { method: 'PUT', body: { name } });
export const saveUnit = (id: string, revision: number, facts: UnitFacts) =>
  fetchJson<Unit>(`/api/machines/${id}/unit`, { method: 'PUT', body: facts, ifMatch: revision });
export const listRevisions = (id: string, page: number) =>
  fetchJson<Page<RevisionSummary>>(`/api/machines/${id}/revisions?page=${page}`);
export const readRevision = (id: string, revision: number) =>
  fetchJson<OldRecord>(`/api/machines/${id}/revisions/${revision}`);
