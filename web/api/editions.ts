import type { Page } from '@zugluft/core/library/answers';
import type { EditionAnswer, EditionSummary } from '@zugluft/core/library/editionAnswers';
import { fetchJson } from './http';

export type { EditionAnswer, EditionSummary };

export const editionKeys = {
  list: (machineId: string) => ['machines', 'editions', machineId] as const,
  one: (machineId: string, number: number) => ['machines', 'editions', machineId, number] as const,
};

const at = (machineId: string) => `/api/machines/${machineId}/editions`;

/** The newest editions, the newest first. */
export const listEditions = async (
  machineId: string,
  signal?: AbortSignal,
): Promise<Page<EditionSummary>> => fetchJson(at(machineId), signal ? { signal } : {});

/** An edition with what is new in it. */
export const readEdition = async (
  machineId: string,
  number: number,
  signal?: AbortSignal,
): Promise<EditionAnswer> => fetchJson(`${at(machineId)}/${number}`, signal ? { signal } : {});

/** Publishes what stands now. */
export const publishEdition = async (
  machineId: string,
  asked: { cap: number | string; setting?: string; ratio?: string; units: string },
): Promise<EditionAnswer> => fetchJson(at(machineId), { method: 'POST', body: asked });

/** Address of a file of an edition. */
export const editionFile = (machineId: string, number: number, name: string, save = true): string =>
  `${at(machineId)}/${number}/files/${encodeURIComponent(name)}${save ? '?save=1' : ''}`;

/** Address of all of them. */
export const editionZip = (machineId: string, number: number): string =>
  `${at(machineId)}/${number}/edition.zip`;
