import type { Difference } from '@zugluft/core/family/diffRecords';
import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { fetchJson } from './http';
import type { Machine, Unit } from './machines';

/** A machine among those of its model. */
export interface FamilyMember {
  id: string;
  variantId: string;
  unitId: string;
  variant: string;
  serial: string;
  stateName: string;
  complete: boolean;
  togetherAt36W: number | null;
  putAside: boolean;
}

export interface RevisionSummary {
  revision: number;
  at: string;
  changed: number;
  first: Difference[];
}

export interface RevisionPage {
  items: RevisionSummary[];
  total: number;
  page: number;
  pageSize: number;
}

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
  fetchJson<RevisionPage>(`/api/machines/${id}/revisions?page=${page}`);
export const readRevision = (id: string, revision: number) =>
  fetchJson<{ revision: number; at: string; record: CaseRecord }>(
    `/api/machines/${id}/revisions/${revision}`,
  );
