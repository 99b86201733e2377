import { useState } from 'react';
import { addPart, editPart, removePart } from '@zugluft/core/service/ledgerEdits';
import { FIXINGS, PART_KINDS } from '@zugluft/core/service/openUpLog';
import type { OpenUpLog } from '../../api/openUp';
import { idWords, SelectCell, TextCell, YesNoCell } from './cells';
import { RemoveButton } from '../../kit/RemoveButton';
import { TableHead } from '../../kit/TableHead';
import { LedgerSection } from './LedgerSection';
import { useOpenUp } from './OpenUpLog';
import { PartDetails } from './PartDetails';

/** The parts ledger: what each part is, how it is fixed, whether it is replaced alone; the chosen one in full. */
export function LedgerList() {
  const { log, change } = useOpenUp();
  const [chosen, setChosen] = useState<string | null>(null);
  return (
    <LedgerSection
      title="Parts ledger"
      word="part"
      full={log.parts.length >= 200}
      add={() => change(addPart)}
      empty={
        log.parts.length
          ? null
          : 'Walk through the parts: number, how each is fixed, whether it can be replaced alone. At the bench the key p logs one.'
      }
    >
      <div className="overflow-x-auto relative">
        <table className="w-full text-left border-collapse">
          <TableHead
            titles={['part', 'kind', 'part number', 'fixing', 'alone', 'own board', 'label', '']}
          />
          <tbody>
            {log.parts.map((p) => (
              <PartRow
                key={p.id}
                part={p}
                open={chosen === p.id}
                toggle={() => setChosen(chosen === p.id ? null : p.id)}
              />
            ))}
          </tbody>
        </table>
      </div>
    </LedgerSection>
  );
}

function PartRow({
  part: p,
  open,
  toggle,
}: {
  part: OpenUpLog['parts'][number];
  open: boolean;
  toggle: () => void;
}) {
  const { change } = useOpenUp();
  const edit = (to: Partial<typeof p>) => change((l) => editPart(l, p.id, to));
  const port = p.kind === 'port' || p.kind === 'power-jack';
  return (
    <>
      <tr className={open ? '' : 'border-b border-rule'}>
        <td className="min-w-32">
          <TextCell
            label={`name of ${p.name}`}
            value={p.name}
            required
            set={(name) => name && edit({ name })}
          />
        </td>
        <td>
          <SelectCell
            label={`kind of ${p.name}`}
            value={p.kind}
            empty="not said"
            options={idWords(PART_KINDS)}
            set={(kind) => edit({ kind: kind as (typeof PART_KINDS)[number] | undefined })}
          />
        </td>
        <td className="min-w-28">
          <TextCell
            label={`part number of ${p.name}`}
            value={p.partNumber}
            set={(partNumber) => edit({ partNumber })}
          />
        </td>
        <td>
          <SelectCell
            label={`fixing of ${p.name}`}
            value={p.fixing}
            empty="not said"
            options={idWords(FIXINGS)}
            set={(fixing) => edit({ fixing: fixing as (typeof FIXINGS)[number] | undefined })}
          />
        </td>
        <td>
          <YesNoCell
            label={`${p.name} replaced alone`}
            value={p.alone}
            set={(alone) => edit({ alone })}
          />
        </td>
        <td>
          {port && (
            <YesNoCell
              label={`${p.name} on a board of its own`}
              value={p.ownBoard}
              set={(ownBoard) => edit({ ownBoard })}
            />
          )}
        </td>
        <td>
          <YesNoCell
            label={`${p.name} labelled`}
            value={p.labelled}
            set={(labelled) => edit({ labelled })}
          />
        </td>
        <td className="whitespace-nowrap text-right">
          <button
            type="button"
            className="underline underline-offset-2 text-[0.9rem] cursor-pointer"
            aria-expanded={open}
            onClick={toggle}
          >
            {open ? 'less' : 'more'}
          </button>
          <RemoveButton what={p.name} remove={() => change((l) => removePart(l, p.id))} />
        </td>
      </tr>
      {open && (
        <tr className="border-b border-rule">
          <td colSpan={8} className="pb-3">
            <PartDetails part={p} edit={edit} />
          </td>
        </tr>
      )}
    </>
  );
}
