import { fetchJson } from './http';

export interface Health {
  ok: boolean;
  freeBytes: number;
  spaceIsLow: boolean;
}

export const fetchHealth = () => fetchJson<Health>('/api/health');
