import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import type { ImportItem, WhenChanged } from '@zugluft/core/library/answers';
import { importFile } from '../../api/exchange';
import { Modal } from '../../kit/Modal';
import { ExportLinks } from './ExportLinks';
import { ImportPlan } from './ImportPlan';
import { ImportProgress } from './ImportProgress';

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
  const stopped = run.error?.name === 'AbortError';
  return (
    <Modal title="Import and export" open={open} onClose={leave}>
      <ExportLinks />
      <section aria-label="import">
        <h3 className="text-small text-quiet mb-1">Import</h3>
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
          <ImportProgress
            word={run.variables.apply ? 'Writing' : 'Reading'}
            progress={progress}
            cancel={() => abort.current?.abort()}
          />
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
          <ImportPlan
            items={items}
            changed={changed}
            setChanged={setChanged}
            apply={() => file && run.mutate({ file, apply: true })}
          />
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
