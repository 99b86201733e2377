import type { KeptMeasures } from '@zugluft/core/photo/measureKept';
import type { PhotoMarks } from '@zugluft/core/photo/photoMarks';
import type { Proposal } from '@zugluft/core/photo/proposals';
import { SOUGHT, type Sought } from '@zugluft/core/photo/sought';
import type { Attachment } from './attachments';
import { fetchJson } from './http';

export { SOUGHT };
export type { KeptMeasures, Proposal, Sought };

/** Side of a piece of a photo at full size, px. */
export const TILE_PX = 512;

const one = (a: Pick<Attachment, 'machineId' | 'id'>) =>
  `/api/machines/${a.machineId}/attachments/${a.id}`;

/** The photo as large as a screen, without its boxes. */
export const viewUrl = (a: Attachment) => `${one(a)}/view`;
/** A piece of it at full size. */
export const tileUrl = (a: Attachment, column: number, row: number) =>
  `${one(a)}/tiles/${column}/${row}`;

/** Parts of a photo of one sort that are found by themselves. */
export const proposeMarks = (a: Attachment, marks: PhotoMarks, of: Sought, signal: AbortSignal) =>
  fetchJson<{ items: Proposal[] }>(`${one(a)}/proposals?of=${of}`, {
    method: 'POST',
    body: marks,
    signal,
  });

/** What the marks of a photo measure. */
export const measurePhoto = (a: Attachment, marks: PhotoMarks, signal?: AbortSignal) =>
  fetchJson<KeptMeasures>(`${one(a)}/measures`, {
    method: 'POST',
    body: marks,
    ...(signal ? { signal } : {}),
  });
