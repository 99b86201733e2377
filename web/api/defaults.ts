import type { LabDefault } from '@zugluft/core/record/labDefaults';
import { fetchJson } from './http';

export type LabDefaultEntry = LabDefault & { since: string };
interface Answer {
  items: Record<string, LabDefaultEntry>;
}

export const defaultsKey = ['defaults'] as const;
export const listDefaults = () => fetchJson<Answer>('/api/defaults');
export const setDefault = (key: string, entry: LabDefault) =>
  fetchJson<Answer>(`/api/defaults/${encodeURIComponent(key)}`, { method: 'PUT', body: entry });
export const resetDefault = (key: string) =>
  fetchJson<Answer>(`/api/defaults/${encodeURIComponent(key)}`, { method: 'DELETE' });
