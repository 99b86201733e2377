import type { KeptLog, LogSibling } from '@zugluft/core/library/answers';
import type { OpenUpLog } from '@zugluft/core/service/openUpLog';
import { fetchJson } from './http';

export type { KeptLog, OpenUpLog };

export const openUpKeys = {
  of: (machineId: string) => ['machines', 'log', machineId] as const,
  siblings: (machineId: string) => ['machines', 'log-siblings', machineId] as const,
};

export const listSiblings = (machineId: string) =>
  fetchJson<{ items: LogSibling[] }>(`/api/machines/${machineId}/log/siblings`);
/** Where a guide is read or saved. */
export const guideUrl = (machineId: string, goal: string, kind: 'html' | 'save' | 'zip') =>
  `/api/machines/${machineId}/guide.${kind === 'zip' ? 'zip' : 'html'}?goal=${goal}${kind === 'save' ? '&save=1' : ''}`;

export const readLog = (machineId: string) => fetchJson<KeptLog>(`/api/machines/${machineId}/log`);
