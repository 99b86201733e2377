import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { PhotoMarks } from '@zugluft/core/photo/photoMarks';
import type { Attachment } from '../../api/attachments';
import { proposeMarks, type Proposal } from '../../api/measuring';

/** Parts that are found in a photo when somebody asks, until each is taken or left. */
export function useProposals(photo: Attachment) {
  const [items, setItems] = useState<readonly Proposal[] | null>(null);
  const { mutate, isPending, error } = useMutation({
    mutationFn: (marks: PhotoMarks) => proposeMarks(photo, marks),
    onSuccess: (answer) => setItems(answer.items),
  });
  return {
    items,
    looking: isPending,
    error,
    ask: (marks: PhotoMarks) => {
      if (!isPending) mutate(marks);
    },
    /** Takes the one that is offered off the list; null where there is none. */
    takeFirst(): Proposal | null {
      const [first, ...rest] = items ?? [];
      if (first) setItems(rest);
      return first ?? null;
    },
  };
}
