import { useQuery, useQueryClient } from '@tanstack/react-query';
import { createContext, useContext, useEffect, useState, type ReactNode } from 'react';
import {
  addAttachment,
  attachmentKeys,
  listAttachments,
  factsOf,
  type Attachment,
  type AttachmentFacts,
} from '../../api/attachments';
import { documentMoved, onArrived } from '../keepers';
import { Lightbox } from './Lightbox';
import { createSendQueue, type Sending, type SendQueue } from './sendQueue';

interface AttachmentsValue {
  /** Those that are not put aside, oldest first. */
  items: Attachment[];
  aside: Attachment[];
  error: Error | null;
  loading: boolean;
  sending: readonly Sending[];
  queue: SendQueue;
  /** Shows one large, with those it can be paged through. */
  show: (a: Attachment, among: readonly Attachment[]) => void;
  /** Takes what the server answered into the list. */
  replace: (a: Attachment) => void;
}

const Context = createContext<AttachmentsValue | null>(null);

export function useAttachments(): AttachmentsValue {
  const value = useContext(Context);
  if (!value) throw new Error('used outside a machine’s file');
  return value;
}

/** Photos and papers of one machine, those on their way to the server, and the large view over every step. */
export function AttachmentsProvider({
  machineId,
  made,
  children,
}: {
  machineId: string;
  /** False for a machine that the server does not have yet. */
  made: boolean;
  children: ReactNode;
}) {
  const client = useQueryClient();
  const key = attachmentKeys.of(machineId);
  const { data, error, isPending } = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => listAttachments(machineId, signal),
    enabled: made,
  });
  const [sending, setSending] = useState<readonly Sending[]>([]);
  const [shown, setShown] = useState<{ id: string; among: string[] } | null>(null);
  const replace = (a: Attachment) => {
    client.setQueryData<Attachment[]>(attachmentKeys.of(a.machineId), (all = []) =>
      all.some((x) => x.id === a.id) ? all.map((x) => (x.id === a.id ? a : x)) : [...all, a],
    );
    documentMoved('photo', a.id, { revision: a.revision, value: factsOf(a) });
  };
  // what was typed of a photo stands in the list as soon as the server has it
  useEffect(
    () =>
      onArrived((kind, id, { revision, value }) => {
        if (kind !== 'photo') return;
        client.setQueryData<Attachment[]>(attachmentKeys.of(machineId), (all) =>
          all?.map((x) => (x.id === id ? { ...x, ...(value as AttachmentFacts), revision } : x)),
        );
      }),
    [client, machineId],
  );
  const [queue] = useState(() =>
    createSendQueue(
      machineId,
      (item, signal) => addAttachment(machineId, item, signal),
      setSending,
      replace,
    ),
  );
  const waiting = sending.some((s) => s.state !== 'refused' && !s.shelved);
  useEffect(() => {
    if (!waiting) return;
    // the browser asks before a page is left that alone holds photos
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [waiting]);
  const all = data ?? [];
  const items = all.filter((a) => a.putAsideAt === null);
  const byId = new Map(items.map((a) => [a.id, a]));
  const among = (shown?.among ?? []).flatMap((id) => byId.get(id) ?? []);
  const at = among.findIndex((a) => a.id === shown?.id);
  return (
    <Context.Provider
      value={{
        items,
        aside: all.filter((a) => a.putAsideAt !== null),
        error,
        loading: isPending,
        sending,
        queue,
        show: (a, list) => setShown({ id: a.id, among: list.map((x) => x.id) }),
        replace,
      }}
    >
      {children}
      {shown && at >= 0 && (
        <Lightbox
          key={shown.id}
          attachment={among[at]!}
          place={`${at + 1} of ${among.length}`}
          go={(by) => {
            const next = among[(at + by + among.length) % among.length]!;
            setShown({ ...shown, id: next.id });
          }}
          close={() => setShown(null)}
        />
      )}
    </Context.Provider>
  );
}
