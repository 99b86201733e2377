import type { KeptLog } from '@zugluft/core/library/answers';
import type { OpenUpLog } from '@zugluft/core/service/openUpLog';
import { fetchJson } from './http';

export type { KeptLog, OpenUpLog };

export const openUpKeys = { of: (machineId: string) => ['machines', 'log', machineId] as const };

export const readLog = (machineId: string) => fetchJson<KeptLog>(`/api/machines/${machineId}/log`);
export const saveLog = (machineId: string, revision: number, log: OpenUpLog) =>
  fetchJson<KeptLog>(`/api/machines/${machineId}/log`, {
    method: 'PUT',
    body: { log },
    ifMatch: revision,
  });
