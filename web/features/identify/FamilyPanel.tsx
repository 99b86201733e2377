import { useCommands } from '../../documents/commands';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import {
  addState,
  addUnit,
  addVariant,
  familyKeys,
  listFamily,
  renameState,
} from '../../api/families';
import { machineKeys, type Machine } from '../../api/machines';
import { documentMoved, onArrived } from '../../documents/keepers';
import { useMachineFile } from '../../documents/record/MachineFile';
import { togetherAt, middleCap } from '../../documents/answer/caps';
import type { OpenedMachine } from '../../documents/record/openedMachine';
import { Modal } from '../../kit/Modal';
import { PlainInput } from '../../kit/PlainInput';
import { wattsText } from '@zugluft/core/case/answerWords';

const LOOK_AGAIN_MS = 3000;

type Kind = 'state' | 'unit' | 'variant' | 'rename';

const ASK: Record<Kind, { title: string; label: string; hint: string; words: string; go: string }> =
  {
    state: {
      title: 'New state of this unit',
      label: 'Name of the state',
      hint: 'cleaned, new paste',
      words:
        'A copy of this file for the same unit. Cooling is shared: a figure typed in one stands in the other. Firmware, settings, dust, paste and room are its own.',
      go: 'Add state',
    },
    unit: {
      title: 'Another unit of this variant',
      label: 'Serial number',
      hint: 'may stay empty',
      words: 'It shares the cooling. Paste age, dust, noise and room are to be found out anew.',
      go: 'Add unit',
    },
    variant: {
      title: 'Sibling variant',
      label: 'Name of the variant',
      hint: '6-core, 45 W class',
      words:
        'The cooling is copied and every figure marked as assumed from this variant, until it is confirmed.',
      go: 'Add variant',
    },
    rename: {
      title: 'Name of this state',
      label: 'Name of the state',
      hint: 'as found',
      words: '',
      go: 'Rename',
    },
  };

/** Variants, units and states of this model, each a file; new ones are made from the one that is open. */
export function FamilyPanel() {
  const { machine, kept, caps } = useMachineFile();
  const cap = middleCap(caps);
  const client = useQueryClient();
  const navigate = useNavigate();
  const [asking, setAsking] = useState<Kind | null>(null);
  const [text, setText] = useState('');
  const { stateName } = machine;
  const { data, error } = useQuery({
    queryKey: familyKeys.family(machine.id),
    queryFn: () => listFamily(machine.id),
    // as long as watts are being computed it is looked at again
    refetchInterval: (query) =>
      query.state.data?.items.some((m) => m.watts[String(cap)] === undefined)
        ? LOOK_AGAIN_MS
        : false,
  });
  // a name or figure that was typed here, or a sibling that was changed, stands in it as soon as the server has it
  useEffect(
    () =>
      onArrived((of) => {
        if (of === 'record' || of === 'unit') {
          void client.invalidateQueries({ queryKey: ['machines', 'family'] });
        }
      }),
    [client],
  );
  const make = useMutation({
    mutationFn: (kind: Kind): Promise<Machine> => {
      if (kind === 'state') return addState(machine.id, text);
      if (kind === 'unit') return addUnit(machine.id, text.trim() ? { serial: text.trim() } : {});
      if (kind === 'variant') return addVariant(machine.id, text);
      // what is typed goes first, so that the name is given to what stands here
      return kept.keeper
        .flush()
        .then(() => renameState(machine.id, kept.keeper.view().revision, text));
    },
    onSuccess: (made) => {
      setAsking(null);
      void client.invalidateQueries({ queryKey: ['machines', 'family'] });
      void client.invalidateQueries({ queryKey: ['machines', 'list'] });
      if (made.id === machine.id) {
        documentMoved('record', made.id, { revision: made.revision, value: made.record });
        client.setQueryData<OpenedMachine>(
          machineKeys.one(made.id),
          (m) => m && { ...m, machine: { ...m.machine, stateName: made.stateName } },
        );
      } else void navigate(`/machines/${made.id}/identify`);
    },
  });
  const ask = (kind: Kind) => {
    setText(kind === 'rename' ? stateName : '');
    make.reset();
    setAsking(kind);
  };
  useCommands({
    'new-state': () => ask('state'),
    'new-unit': () => ask('unit'),
    'new-variant': () => ask('variant'),
    'rename-state': () => ask('rename'),
    compare: () => {
      const other = data?.items.find((m) => m.id !== machine.id && !m.putAside);
      if (other) void navigate(`/compare/${machine.id}/${other.id}`);
    },
  });
  const items = data?.items.filter((m) => !m.putAside || m.id === machine.id) ?? [];
  let lastVariant = '';
  let lastUnit = '';
  return (
    <section aria-label="variants, units and states">
      <h2 className="font-semibold mb-1">Variants, units and states of this model</h2>
      {error && <p className="text-heat">They could not be read: {error.message}</p>}
      <table className="w-full text-left border-collapse text-[0.92rem]" data-testid="family">
        <thead>
          <tr className="text-small text-quiet border-b border-rule">
            <th className="font-normal px-1.5 py-1">variant</th>
            <th className="font-normal px-1.5 py-1">unit</th>
            <th className="font-normal px-1.5 py-1">state</th>
            <th className="font-normal px-1.5 py-1 text-right whitespace-nowrap">
              {togetherAt(cap)}
            </th>
            <th className="font-normal px-1.5 py-1">
              <span className="sr-only">compare</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {items.map((m) => {
            const here = m.id === machine.id;
            const newVariant = m.variantId !== lastVariant;
            const newUnit = m.unitId !== lastUnit;
            lastVariant = m.variantId;
            lastUnit = m.unitId;
            const name = here ? stateName : m.stateName;
            return (
              <tr key={m.id} className={`border-b border-rule ${here ? 'bg-base-200' : ''}`}>
                <td className="px-1.5 py-1">{newVariant ? m.variant || 'unnamed' : ''}</td>
                <td className="px-1.5 py-1 figure text-small">{newUnit ? m.serial || '–' : ''}</td>
                <td className="px-1.5 py-1">
                  {here ? (
                    <>
                      <span aria-current="page">{name}</span>{' '}
                      <button
                        type="button"
                        className="text-quiet text-small underline cursor-pointer hover:text-ink"
                        onClick={() => ask('rename')}
                      >
                        rename
                      </button>
                    </>
                  ) : (
                    <Link
                      to={`/machines/${m.id}/identify`}
                      className="underline underline-offset-2"
                    >
                      {name}
                    </Link>
                  )}
                </td>
                <td className="px-1.5 py-1 figure text-right whitespace-nowrap">
                  {m.watts[String(cap)] ? wattsText(m.watts[String(cap)]!.p50) : '–'}{' '}
                  <span className="unit">W</span>
                </td>
                <td className="px-1.5 py-1 text-right">
                  {!here && (
                    <Link
                      to={`/compare/${machine.id}/${m.id}`}
                      className="text-quiet hover:text-ink underline underline-offset-2"
                      aria-label={`compare with ${m.variant}, ${m.serial}, ${name}`}
                    >
                      compare
                    </Link>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <div className="flex flex-wrap gap-x-5 py-2 px-1.5 text-[0.9rem] no-print">
        {(['state', 'unit', 'variant'] as const).map((kind) => (
          <button
            key={kind}
            type="button"
            className="cursor-pointer text-quiet hover:text-ink"
            onClick={() => ask(kind)}
          >
            {kind === 'state' && 'add a state'}
            {kind === 'unit' && 'add a unit'}
            {kind === 'variant' && 'copy to a sibling variant'}
          </button>
        ))}
      </div>
      {asking && (
        <Modal title={ASK[asking].title} open onClose={() => setAsking(null)}>
          <form
            onSubmit={(e) => {
              e.preventDefault();
              make.mutate(asking);
            }}
          >
            {ASK[asking].words && <p className="mb-3 text-[0.95rem]">{ASK[asking].words}</p>}
            <PlainInput
              label={ASK[asking].label}
              value={text}
              onChange={setText}
              hint={ASK[asking].hint}
              error={make.error ? make.error.message : undefined}
              autoFocus
            />
            <div className="flex gap-2 mt-3">
              <button
                type="submit"
                className="btn btn-sm btn-primary"
                disabled={make.isPending || (asking !== 'unit' && text.trim() === '')}
              >
                {ASK[asking].go}
              </button>
              <button type="button" className="btn btn-sm" onClick={() => setAsking(null)}>
                Leave it
              </button>
            </div>
          </form>
        </Modal>
      )}
    </section>
  );
}
