import { useQuery, useQueryClient } from '@tanstack/react-query';
import { format } from 'date-fns';
import { plural } from '@zugluft/core/record/plural';
import { useRef, useState } from 'react';
import { BACKUP_NOW, fetchBackups, restoreBackup, type RestoredLibrary } from '../../api/backup';
import { Modal } from '../../kit/Modal';

const MB = 1024 * 1024;
const size = (bytes: number) => `${(bytes / MB).toFixed(1)} MB`;
const when = (at: string) => format(new Date(at), 'yyyy-MM-dd HH:mm');

type State =
  | { is: 'idle' }
  | { is: 'asked'; file: File }
  | { is: 'sending'; file: File; share: number }
  | { is: 'done'; restored: RestoredLibrary }
  | { is: 'failed'; why: string };

/** All that is kept, in one file and back: saved by a button, restored by another, and each day by itself. */
export function Backup() {
  const queries = useQueryClient();
  const { data, error } = useQuery({ queryKey: ['backups'], queryFn: fetchBackups });
  const [state, setState] = useState<State>({ is: 'idle' });
  const choosing = useRef<HTMLInputElement>(null);
  const sending = useRef<AbortController | null>(null);

  const restore = async (file: File) => {
    sending.current = new AbortController();
    setState({ is: 'sending', file, share: 0 });
    try {
      const restored = await restoreBackup(
        file,
        (share) => setState({ is: 'sending', file, share }),
        sending.current.signal,
      );
      setState({ is: 'done', restored });
      // nothing that was read before holds any more
      await queries.invalidateQueries();
    } catch (cause) {
      setState(
        (cause as Error).name === 'AbortError'
          ? { is: 'idle' }
          : { is: 'failed', why: (cause as Error).message },
      );
    }
  };

  return (
    <section aria-label="Backup" className="border-b border-rule py-3 mb-4" data-testid="backup">
      <h2 className="font-semibold mb-1">Backup</h2>
      <p className="text-[0.9rem] text-quiet mb-2">
        One file holds all that is kept: every record with its revisions, logs, photos, papers and
        what was published. What is there when one is restored is set aside, not deleted.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <a className="btn btn-sm" href={BACKUP_NOW} download>
          Save a backup
        </a>
        <button
          type="button"
          className="btn btn-sm"
          disabled={state.is === 'sending'}
          onClick={() => choosing.current?.click()}
        >
          Restore one…
        </button>
        <input
          ref={choosing}
          type="file"
          accept=".tar"
          aria-label="a backup to restore"
          className="hidden"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = '';
            if (file) setState({ is: 'asked', file });
          }}
        />
        <span role="status" className="text-[0.9rem]" data-testid="restore-state">
          {state.is === 'sending' &&
            (state.share < 1
              ? `${Math.floor(100 * state.share)} % of ${state.file.name} is on its way`
              : 'it is checked, then put in place')}
          {state.is === 'done' &&
            `${plural(state.restored.machines, 'machine')} and ${plural(state.restored.files, 'file')} of ${when(state.restored.createdAt)} are back and were compared. What was there lies in ${state.restored.aside}.`}
        </span>
        {state.is === 'sending' && state.share < 1 && (
          <button
            type="button"
            className="btn btn-sm btn-ghost"
            onClick={() => sending.current?.abort()}
          >
            Stop
          </button>
        )}
      </div>
      {state.is === 'failed' && (
        <p className="text-heat mt-2" role="alert">
          Nothing was restored: {state.why}.
        </p>
      )}
      {error ? (
        <p className="text-heat mt-2" role="alert">
          The daily backups could not be read: {error.message}.
        </p>
      ) : (
        data && (
          <p className="text-[0.9rem] mt-2">
            {data.items.length ? (
              <>
                Each day by itself, last{' '}
                <span className="figure">
                  {when(data.items[0]!.at)}, {size(data.items[0]!.bytes)}
                </span>
                ; those of seven days and four weeks stay in{' '}
                <span className="figure break-all">{data.folder}</span>
              </>
            ) : (
              <>
                Each day by itself into <span className="figure break-all">{data.folder}</span>;
                none yet
              </>
            )}
          </p>
        )
      )}
      {state.is === 'asked' && (
        <Modal title="Restore a backup" open onClose={() => setState({ is: 'idle' })}>
          <p className="mb-3">
            All that is kept now is set aside, and {state.file.name} ({size(state.file.size)}) takes
            its place. Other windows lose what they have not kept yet.
          </p>
          <div className="flex gap-3">
            <button type="button" className="btn btn-sm" onClick={() => void restore(state.file)}>
              Restore it
            </button>
            <button
              type="button"
              className="btn btn-sm btn-ghost"
              onClick={() => setState({ is: 'idle' })}
            >
              Leave all as it is
            </button>
          </div>
        </Modal>
      )}
    </section>
  );
}
