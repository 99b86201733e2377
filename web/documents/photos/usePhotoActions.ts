import { toast } from 'sonner';
import { copyUrl, putAttachmentAside, type Attachment } from '../../api/attachments';
import { useAttachments } from './AttachmentsProvider';

/**
 * What leads out of the large view of a photo: a copy with its boxes burned in, and putting it aside.
 *
 * @param attachment the photo or paper
 * @param about its name as it is shown, and the revision that is seen
 * @param flush sends what was typed; false where it could not be kept
 */
export function usePhotoActions(
  attachment: Attachment,
  about: { label: string; revision: number },
  flush: () => Promise<boolean>,
) {
  const { replace } = useAttachments();
  // the server burns the boxes in: a copy must not leave before it has them
  const saveCopy = async () => {
    if (!(await flush())) {
      toast.error('No copy: the boxes could not be saved, and it would go out without them.');
      return;
    }
    const link = document.createElement('a');
    link.href = copyUrl(attachment);
    link.download = '';
    link.click();
  };
  const putAside = async () => {
    try {
      // what was typed goes first
      await flush();
      const aside = await putAttachmentAside({ ...attachment, revision: about.revision }, true);
      replace(aside);
      toast(`${about.label.slice(0, 60)} is put aside`, {
        action: {
          label: 'Bring back',
          onClick: () =>
            void putAttachmentAside(aside, false).then(replace, (cause: Error) =>
              toast.error(`It could not be brought back: ${cause.message}`),
            ),
        },
      });
    } catch (cause) {
      toast.error(`It could not be put aside: ${(cause as Error).message}`);
    }
  };
  return { saveCopy, putAside };
}
