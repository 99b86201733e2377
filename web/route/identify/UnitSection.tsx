import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import { useMachineFile } from '../../machine/MachineFile';
import { useUnitFacts } from '../../machine/useUnitFacts';
import { FieldRow } from '../../ui/FieldRow';
import { PlainInput } from '../../ui/PlainInput';

const FIELDS: [keyof UnitFacts & string, string, string][] = [
  ['serial', 'Serial number', ''],
  ['source', 'Source', 'bought, lent, sent in'],
  ['receivedOn', 'Received on', '2026-11-25'],
  ['reason', 'Reason for opening', ''],
  ['earlierHands', 'Earlier hands', 'opened before, paste renewed, screws missing'],
];

/** The one notebook on the bench: where it came from and what was done to it before. */
export function UnitSection() {
  const { machine } = useMachineFile();
  const { facts, set, saving, issues, keepMine, takeTheirs } = useUnitFacts(
    machine.id,
    machine.unit,
  );
  return (
    <section aria-label="unit">
      <div className="flex items-baseline justify-between">
        <h2 className="font-semibold mb-1">Unit on the bench</h2>
        <span className="text-[0.8rem] text-quiet" role="status" data-testid="unit-status">
          {saving.kind === 'saving' && 'saving'}
          {saving.kind === 'away' && 'server away · kept in this browser'}
          {saving.kind === 'held' && 'kept in this browser until mended'}
          {saving.kind === 'refused' && `not saved: ${saving.message}`}
        </span>
      </div>
      {FIELDS.map(([field, name, hint]) => (
        <FieldRow key={field} name={name}>
          <PlainInput
            label={name}
            value={String(facts[field] ?? '')}
            hint={hint}
            error={issues.get(field)}
            onChange={(text) => set(field, text)}
          />
        </FieldRow>
      ))}
      {saving.kind === 'conflict' && (
        <p className="border-l-2 border-heat pl-2 my-2 text-[0.9rem]" role="alert">
          These facts were changed in another window.{' '}
          <button type="button" className="underline cursor-pointer" onClick={keepMine}>
            Keep what stands here
          </button>{' '}
          or{' '}
          <button type="button" className="underline cursor-pointer" onClick={takeTheirs}>
            take the other version
          </button>
          .
        </p>
      )}
      <p className="text-[0.85rem] text-quiet pt-2">
        The serial number stays in this library; exported records leave it out.
      </p>
    </section>
  );
}
