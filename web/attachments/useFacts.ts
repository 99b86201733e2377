import {
  changeAttachment,
  factsOf,
  type Attachment,
  type AttachmentFacts,
} from '../api/attachments';
import { diffRecords } from '@zugluft/core/family/diffRecords';
import { useKeeper } from '../keep/useKeeper';

/**
 * What is known of one photo or paper while it is changed: shown at once, saved shortly after and when the view closes, with
 * undo. Of a change in another window one chooses.
 */
export function useFacts(attachment: Attachment, replace: (a: Attachment) => void) {
  const { value, state, keeper } = useKeeper<AttachmentFacts, Attachment>(() => ({
    server: { value: factsOf(attachment), base: attachment },
    pending: null,
    // a photo's boxes wait in the page: it cannot be shown without the server anyway
    store: () => undefined,
    send: async (base, facts) => {
      const saved = await changeAttachment(base, facts);
      replace(saved);
      return saved;
    },
    theirs: ({ body }) => {
      const current = body['current'] as Attachment;
      return { value: factsOf(current), base: current };
    },
    same: (a, b) => diffRecords(a, b).length === 0,
    saveAfterMs: 400,
  }));
  return {
    facts: value,
    state,
    change: (part: Partial<AttachmentFacts>) => keeper.change((f) => ({ ...f, ...part })),
    flush: keeper.flush,
    undo: keeper.undo,
    choose(mine: boolean) {
      if (state.kind === 'conflict' && !mine) replace(state.theirs.base);
      keeper.choose(mine);
    },
  };
}
