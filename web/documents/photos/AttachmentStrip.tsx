import { AddButton } from './AddButton';
import { AttachmentTile } from './AttachmentTile';
import { useAttachments } from './AttachmentsProvider';
import { SendingList } from './SendingList';

/** Photos and papers of one part or figure in a row, with a way to add some. */
export function AttachmentStrip({
  path,
  words,
  inside = false,
}: {
  path: string;
  /** What they belong to, for labels. */
  words: string;
  /** Also those of the part's figures. */
  inside?: boolean;
}) {
  const { items, sending, show } = useAttachments();
  const mine = items.filter((a) => a.path === path || (inside && a.path.startsWith(`${path}.`)));
  const coming = sending.filter((s) => s.path === path);
  return (
    <div>
      <ul className="flex flex-wrap gap-2 items-center">
        {mine.map((a) => (
          <li key={a.id}>
            <AttachmentTile attachment={a} size="row" open={() => show(a, mine)} />
          </li>
        ))}
        <li>
          <AddButton
            path={path}
            label={`add photos or papers of ${words}`}
            className="text-[0.9rem] text-quiet hover:text-ink underline underline-offset-2"
          >
            {mine.length ? 'add' : 'add photos or papers'}
          </AddButton>
        </li>
      </ul>
      {coming.length > 0 && <SendingList items={coming} />}
    </div>
  );
}
