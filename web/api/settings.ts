import type { LabSettingKey, LabSettings } from '@zugluft/core/service/labSettings';
import { fetchJson } from './http';

export type { LabSettings };

export const settingsKey = ['settings'] as const;
export const readSettings = () => fetchJson<LabSettings>('/api/settings');
export const saveSetting = <K extends LabSettingKey>(key: K, value: LabSettings[K]) =>
  fetchJson<LabSettings>(`/api/settings/${key}`, {
    method: 'PUT',
    body: value,
    keepalive: true,
  });
