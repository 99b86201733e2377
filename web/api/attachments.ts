import type { Page } from '@zugluft/core/library/answers';
import {
  MAX_ATTACHMENT_MB,
  type Attachment,
  type AttachmentFacts,
} from '@zugluft/core/library/attachment';
import { fetchJson, HttpProblem } from './http';

export type { Attachment, AttachmentFacts };

export const attachmentKeys = {
  of: (machineId: string) => ['machines', 'attachments', machineId] as const,
};

const at = (machineId: string) => `/api/machines/${machineId}/attachments`;
const one = (a: Pick<Attachment, 'machineId' | 'id'>) => `${at(a.machineId)}/${a.id}`;

/** All photos and papers of a machine, those put aside too, page after page. */
export async function listAttachments(
  machineId: string,
  signal?: AbortSignal,
): Promise<Attachment[]> {
  const all: Attachment[] = [];
  for (let page = 1; ; page++) {
    const { items, total } = await fetchJson<Page<Attachment>>(
      `${at(machineId)}?aside=1&page=${page}`,
      signal ? { signal } : {},
    );
    all.push(...items);
    if (!items.length || all.length >= total) return all;
  }
}

/** Sends a photo or paper; what it is the server tells by its content. */
export async function addAttachment(
  machineId: string,
  { file, path, id }: { file: File; path: string; id: string },
  signal?: AbortSignal,
): Promise<Attachment> {
  if (file.size > MAX_ATTACHMENT_MB * 1024 * 1024) {
    throw new HttpProblem(413, `the file is larger than ${MAX_ATTACHMENT_MB} MB`);
  }
  const params = new URLSearchParams({ name: file.name.slice(0, 200) || 'photo', path, id });
  return fetchJson<Attachment>(`${at(machineId)}?${params.toString()}`, {
    method: 'POST',
    body: file,
    ...(signal ? { signal } : {}),
  });
}

export const putAttachmentAside = (a: Attachment, aside: boolean) =>
  fetchJson<Attachment>(`${one(a)}/${aside ? 'put-aside' : 'bring-back'}`, {
    method: 'POST',
    ifMatch: a.revision,
  });

export const contentUrl = (a: Attachment) => `${one(a)}/content`;
export const copyUrl = (a: Attachment) => `${one(a)}/copy`;
/** The address changes with the boxes, so that a picture without them is never shown from memory. */
export const smallUrl = (a: Attachment) =>
  `${one(a)}/small?boxes=${encodeURIComponent(a.covers.map((c) => c.map((x) => x.toFixed(4)).join('-')).join('.'))}`;
export const isPaper = (a: Attachment) => a.type === 'application/pdf';

/** What may be changed of a photo or paper. */
export const factsOf = ({
  path,
  name,
  caption,
  covers,
  exported,
  looked,
}: Attachment): AttachmentFacts => ({
  path,
  name,
  caption,
  covers,
  exported,
  looked,
});
