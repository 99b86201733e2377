import { fetchJson, sendFile } from './http';

/** Daily backups and where they lie. */
export interface Backups {
  folder: string;
  items: { name: string; bytes: number; at: string }[];
}

/** What a restore brought back. */
export interface RestoredLibrary {
  createdAt: string;
  machines: number;
  files: number;
  missing: string[];
  /** Folder in which lies what was there before. */
  aside: string;
}

export const BACKUP_NOW = '/api/backup/now.tar';
export const fetchBackups = () => fetchJson<Backups>('/api/backup');
export const restoreBackup = (file: File, told: (share: number) => void, signal: AbortSignal) =>
  sendFile<RestoredLibrary>('/api/backup/restore', file, told, signal);
