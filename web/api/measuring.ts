import type { KeptMeasures } from '@zugluft/core/photo/measureKept';
import type { PhotoMarks } from '@zugluft/core/photo/photoMarks';
import type { Proposal } from '@zugluft/core/photo/proposals';
import type { Attachment } from './attachments';
import { fetchJson } from './http';

export type { KeptMeasures, Proposal };

/** Side of a piece of a photo at full size, px. */
export const TILE_PX = 512;

const one = (a: Pick<Attachment, 'machineId' | 'id'>) =>
  `/api/machines/${a.machineId}/attachments/${a.id}`;

/** The photo as large as a screen, without its boxes. */
export const viewUrl = (a: Attachment) => `${one(a)}/view`;
/** A piece of it at full size. */
export const tileUrl = (a: Attachment, column: number, row: number) =>
  `${one(a)}/tiles/${column}/${row}`;

/** Parts of a photo that are found by themselves. */
export const proposeMarks = (a: Attachment, marks: PhotoMarks) =>
  fetchJson<{ items: Proposal[] }>(`${one(a)}/proposals`, { method: 'POST', body: marks });

/** What the marks of a photo measure. */
export const measurePhoto = (a: Attachment, marks: PhotoMarks, signal?: AbortSignal) =>
  fetchJson<KeptMeasures>(`${one(a)}/measures`, {
    method: 'POST',
    body: marks,
    ...(signal ? { signal } : {}),
  });
