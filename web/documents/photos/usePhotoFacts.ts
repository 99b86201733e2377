import { factsOf, type Attachment, type AttachmentFacts } from '../../api/attachments';
import { keeperOf } from '../keepers';
import { useDocument } from '../useDocument';

/** What is known of one photo or paper while it is changed: a document like any other. */
export function usePhotoFacts(attachment: Attachment) {
  const start = { revision: attachment.revision, value: factsOf(attachment), at: null };
  const { view, keeper } = useDocument('photo', attachment.id, start);
  // asked for again rather than lost where the keeper is not there yet
  const whenThere = () => keeperOf('photo', attachment.id, start);
  return {
    facts: view?.value ?? start.value,
    view,
    keeper,
    change(part: Partial<AttachmentFacts>) {
      const make = (f: AttachmentFacts) => ({ ...f, ...part });
      if (keeper) keeper.change(make, Object.keys(part).join());
      else void whenThere().then((k) => k.change(make));
    },
    /** False where it could not be sent. */
    flush: async () => (await whenThere()).flush(),
    undo: () => keeper?.undo(),
  };
}
