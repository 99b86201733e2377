import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { UnitSystem } from '@zugluft/core/report/quantity';
import {
  editionFile,
  editionKeys,
  editionZip,
  listEditions,
  publishEdition,
  type EditionSummary,
} from '../../api/editions';
import { EditionNews } from './EditionNews';

/** The report as it was published, edition after edition; each stays as it was, whatever is typed afterwards. */
export function Editions({
  machineId,
  asked,
  ready,
  made,
}: {
  machineId: string;
  asked: { cap: Cap; setting: string | undefined; ratio: string | undefined; units: UnitSystem };
  /** The server has what stands here. */
  ready: boolean;
  /** The machine is on the server. */
  made: boolean;
}) {
  const client = useQueryClient();
  const { data, error } = useQuery({
    queryKey: editionKeys.list(machineId),
    queryFn: ({ signal }) => listEditions(machineId, signal),
    enabled: made,
    retry: false,
  });
  // a double click asks twice before the button is drawn as disabled
  const asking = useRef(false);
  const publish = useMutation({
    mutationFn: () =>
      publishEdition(machineId, {
        cap: asked.cap,
        units: asked.units,
        ...(asked.setting ? { setting: asked.setting } : {}),
        ...(asked.ratio ? { ratio: asked.ratio } : {}),
      }),
    onSuccess: async ({ number }) => {
      toast(`Edition ${number} is published`);
      await client.invalidateQueries({ queryKey: editionKeys.list(machineId) });
    },
    onSettled: () => (asking.current = false),
  });
  const [newest] = data?.items ?? [];
  return (
    <section aria-label="editions" className="mt-4">
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h3 className="font-semibold">Editions</h3>
        <button
          type="button"
          className="btn btn-sm btn-primary"
          disabled={!ready || publish.isPending}
          onClick={() => {
            if (asking.current) return;
            asking.current = true;
            publish.mutate();
          }}
        >
          Publish edition {(newest?.number ?? 0) + 1}
        </button>
        {publish.isPending && (
          <span role="status" className="text-small text-quiet">
            Writing it in every form.
          </span>
        )}
        {publish.error && (
          <span role="alert" className="text-small text-heat">
            Not published: {publish.error.message}.
          </span>
        )}
      </div>
      {error && <p className="text-small text-quiet">They could not be read: {error.message}.</p>}
      {data && data.items.length === 0 && (
        <p className="text-small text-quiet max-w-prose">
          None yet. An edition is written in every form and stays as it is; what changes later makes
          the next one, which says what is new.
        </p>
      )}
      <ul className="mt-1">
        {data?.items.map((edition) => (
          <EditionRow key={edition.number} machineId={machineId} edition={edition} />
        ))}
      </ul>
      {data && data.total > data.items.length && (
        <p className="text-small text-quiet">
          The newest {data.items.length} of {data.total}.
        </p>
      )}
    </section>
  );
}

function EditionRow({ machineId, edition }: { machineId: string; edition: EditionSummary }) {
  const { number, createdAt, recordRevision, headline, files, imported } = edition;
  const [open, setOpen] = useState(false);
  const named = (ending: string) => files.find((f) => f.name.endsWith(ending))?.name;
  const page = named('.html');
  const pdf = named('-a4.pdf');
  return (
    <li className="border-b border-rule py-2">
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <strong className="font-semibold">Edition {number}</strong>
        <span className="text-small text-quiet">
          {new Date(createdAt).toLocaleDateString('en-CA')}, record revision {recordRevision}
          {imported && ' of the library it came from'}
        </span>
        {page && (
          <a
            className="underline underline-offset-2 py-0.5"
            href={editionFile(machineId, number, page, false)}
            target="_blank"
            rel="noreferrer"
          >
            Page
          </a>
        )}
        {pdf && (
          <a
            className="underline underline-offset-2 py-0.5"
            href={editionFile(machineId, number, pdf)}
            download
          >
            PDF
          </a>
        )}
        <a
          className="underline underline-offset-2 py-0.5"
          href={editionZip(machineId, number)}
          download
        >
          All {files.length} files
        </a>
        {number > 1 && (
          <button
            type="button"
            className="btn btn-xs"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            What is new
          </button>
        )}
      </div>
      <p className="text-[0.95rem] text-quiet">{headline}</p>
      {open && <EditionNews machineId={machineId} number={number} />}
    </li>
  );
}
