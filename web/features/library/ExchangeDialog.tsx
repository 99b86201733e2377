import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import type { ImportItem, WhenChanged } from '@zugluft/core/library/answers';
import { importFile } from '../../api/exchange';
import { DifferenceList } from '../../documents/record/DifferenceList';
import { figureWords } from '../../documents/record/figureWords';
import { Modal } from '../../kit/Modal';

const WORDS: Record<ImportItem['action'], string> = {
  new: 'new',
  changed: 'changed',
  same: 'the same',
  refused: 'refused',
};
const SHOWN = 100;

/** Files in and out: what an import would do is shown before anything is written. */
export function ExchangeDialog({ open, close }: { open: boolean; close: () => void }) {
  const client = useQueryClient();
  const [file, setFile] = useState<File | null>(null);
  const [changed, setChanged] = useState<WhenChanged>('update');
  const [progress, setProgress] = useState<[number, number]>([0, 0]);
  const abort = useRef<AbortController | null>(null);
  const run = useMutation({
    mutationFn: async ({ file: from, apply }: { file: File; apply: boolean }) => {
      abort.current = new AbortController();
      setProgress([0, 0]);
      const items = await importFile(
        from,
        { apply, changed, signal: abort.current.signal },
        (done, of) => setProgress([done, of]),
      );
      return { items, apply };
    },
    onSuccess: ({ items, apply }) => {
      if (!apply) return;
      void client.invalidateQueries({ queryKey: ['machines'] });
      const n = (a: ImportItem['action']) => items.filter((i) => i.action === a).length;
      toast(`${n('new')} new, ${n('changed')} changed, ${n('refused')} refused`);
      leave();
    },
  });
  const leave = () => {
    abort.current?.abort();
    setFile(null);
    run.reset();
    close();
  };
  const items = run.data?.items ?? [];
  const count = (a: ImportItem['action']) => items.filter((i) => i.action === a).length;
  const photos = items.reduce((n, i) => n + i.photos, 0);
  // a machine that is the same here may still bring photos
  const useful = items.filter(
    (i) =>
      i.action === 'new' ||
      (i.action === 'changed' && changed !== 'skip') ||
      (i.action === 'same' && i.photos > 0),
  ).length;
  const stopped = run.error?.name === 'AbortError';
  return (
    <Modal title="Import and export" open={open} onClose={leave}>
      <section aria-label="export" className="mb-4">
        <h3 className="text-[0.85rem] text-quiet mb-1">Export</h3>
        <ul className="flex flex-wrap gap-x-5 gap-y-1">
          {[
            ['library.zip', 'the whole library, zip'],
            ['machines.csv', 'a row per machine, CSV'],
            ['parts.csv', 'a row per part, CSV'],
          ].map(([path, words]) => (
            <li key={path}>
              <a href={`/api/exchange/${path}`} download className="underline underline-offset-2">
                {words}
              </a>
            </li>
          ))}
        </ul>
        <p className="text-[0.85rem] text-quiet mt-1">
          Serial numbers stay out. The zip takes photos along, their boxes burned in, and papers
          where that was said. CSV leaves out notes, settings, curves and sweeps.
        </p>
      </section>
      <section aria-label="import">
        <h3 className="text-[0.85rem] text-quiet mb-1">Import</h3>
        <label
          className="block border border-dashed border-rule rounded-sm px-3 py-3 cursor-pointer focus-within:border-air"
          onDragOver={(e) => e.preventDefault()}
          onDrop={(e) => {
            e.preventDefault();
            const dropped = e.dataTransfer.files[0];
            if (!dropped) return;
            setFile(dropped);
            run.mutate({ file: dropped, apply: false });
          }}
        >
          <span>{file ? file.name : 'Choose or drop a record, a CSV or a library zip'}</span>
          <input
            type="file"
            className="sr-only"
            aria-label="file to import"
            accept=".json,.csv,.zip"
            onChange={(e) => {
              const picked = e.currentTarget.files?.[0];
              e.currentTarget.value = '';
              if (!picked) return;
              setFile(picked);
              run.mutate({ file: picked, apply: false });
            }}
          />
        </label>
        {run.isPending && (
          <p className="flex items-center gap-3 mt-2" role="status">
            <progress
              className="progress w-40"
              aria-label="importing"
              {...(progress[1] ? { value: progress[0], max: progress[1] } : {})}
            />
            <span>
              {run.variables.apply ? 'Writing' : 'Reading'}
              {progress[1] > 0 && (
                <span className="figure">
                  {' '}
                  {progress[0]} of {progress[1]}
                </span>
              )}
            </span>
            <button
              type="button"
              className="underline cursor-pointer"
              onClick={() => abort.current?.abort()}
            >
              cancel
            </button>
          </p>
        )}
        {run.error && !run.isPending && (
          <p className="text-heat mt-2" role="alert">
            {stopped
              ? 'Stopped. What was written until then is in the library; the same file again goes on from there.'
              : run.variables?.apply && progress[0] > 0
                ? `Not all was imported: ${run.error.message}. The same file again goes on from there.`
                : `Nothing was imported: ${run.error.message}.`}
          </p>
        )}
        {items.length > 0 && !run.isPending && (
          <>
            <p className="mt-3" data-testid="import-counts">
              <span className="figure">{count('new')}</span> new,{' '}
              <span className="figure">{count('changed')}</span> changed,{' '}
              <span className="figure">{count('same')}</span> the same,{' '}
              <span className="figure">{count('refused')}</span> refused
              {photos > 0 && (
                <>
                  , <span className="figure">{photos}</span> photos and papers
                </>
              )}
              . Nothing is written yet.
            </p>
            <div
              className="max-h-64 overflow-y-auto my-2 border-y border-rule"
              tabIndex={0}
              role="region"
              aria-label="what the import would do"
            >
              <ul>
                {items.slice(0, SHOWN).map((i, k) => (
                  <li key={k} className="py-1 border-b border-rule last:border-0">
                    <div className="grid grid-cols-[5rem_minmax(0,1fr)] gap-2">
                      <span
                        className={
                          i.action === 'refused' ? 'text-heat font-semibold' : 'text-quiet'
                        }
                      >
                        {WORDS[i.action]}
                      </span>
                      <span className="min-w-0 break-words">
                        {i.name || i.label}
                        {i.name && <span className="text-quiet text-[0.85rem]"> · {i.label}</span>}
                        {i.reasons.map((r) => (
                          <span key={r.path + r.message} className="block text-[0.9rem]">
                            {r.path && <span className="text-quiet">{figureWords(r.path)}: </span>}
                            {r.message}
                          </span>
                        ))}
                      </span>
                    </div>
                    {i.first.length > 0 && <DifferenceList differences={i.first} />}
                    {i.changed > i.first.length && (
                      <p className="text-quiet text-[0.85rem] px-1.5">
                        and {i.changed - i.first.length} more
                      </p>
                    )}
                  </li>
                ))}
              </ul>
              {items.length > SHOWN && (
                <p className="text-quiet py-1">and {items.length - SHOWN} more</p>
              )}
            </div>
            {count('changed') > 0 && (
              <label className="flex items-center gap-2 my-2">
                <span className="text-quiet">changed ones</span>
                <select
                  className="select select-sm w-72"
                  value={changed}
                  onChange={(e) => setChanged(e.currentTarget.value as WhenChanged)}
                >
                  <option value="update">become a new revision</option>
                  <option value="new">are added as machines of their own</option>
                  <option value="skip">are left as they are here</option>
                </select>
              </label>
            )}
            <button
              type="button"
              className="btn btn-sm btn-primary"
              disabled={useful === 0}
              onClick={() => file && run.mutate({ file, apply: true })}
            >
              {useful === 0 ? 'Nothing to import' : `Import ${useful}`}
            </button>
          </>
        )}
        {run.data && items.length === 0 && (
          <p className="mt-2">The file holds nothing that could be a machine.</p>
        )}
      </section>
      <button type="button" className="btn btn-sm mt-4" onClick={leave}>
        Close
      </button>
    </Modal>
  );
}
