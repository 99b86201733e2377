import { useState } from 'react';
import { readDate } from '@zugluft/core/record/readDate';
import { unitFacts, type UnitFacts } from '@zugluft/core/family/unitFacts';
import { ConflictPanel } from '../../documents/ConflictPanel';
import { SavedWords } from '../../documents/SavedWords';
import { useDocument } from '../../documents/useDocument';
import { useMachineFile } from '../../documents/record/MachineFile';
import { FieldRow } from '../../kit/FieldRow';
import { PlainInput } from '../../kit/PlainInput';

const FIELDS: [keyof UnitFacts & string, string, string][] = [
  ['serial', 'Serial number', ''],
  ['source', 'Source', 'bought, lent, sent in'],
  ['receivedOn', 'Received on', '25.11.2026'],
  ['reason', 'Reason for opening', ''],
  ['earlierHands', 'Earlier hands', 'opened before, paste renewed, screws missing'],
];

const issuesOf = (facts: UnitFacts) =>
  new Map(
    unitFacts.safeParse(facts).error?.issues.map((i) => [String(i.path[0]), i.message]) ?? [],
  );

/** The day that was understood, where it was typed in another form. */
function dayWords(text: string): string | undefined {
  const day = readDate(text);
  return day === text.trim() ? undefined : day;
}

/** The one notebook on the bench: where it came from and what was done to it before. */
export function UnitSection() {
  const { machine } = useMachineFile();
  const { view, keeper, error, again } = useDocument('unit', machine.unit.id);
  const [typed, setTyped] = useState<string | null>(null);
  if (!view && !error) return <p className="text-quiet">Opening the unit’s facts.</p>;
  const facts = view?.value ?? machine.unit.facts;
  const issues = issuesOf(facts);
  const set = (field: keyof UnitFacts & string, text: string) =>
    keeper?.change((f) => ({ ...f, [field]: text === '' ? undefined : text }), field);
  return (
    <section aria-label="unit">
      <div className="flex items-baseline justify-between">
        <h2 className="font-semibold mb-1">Unit on the bench</h2>
        <span className="text-small text-quiet" role="status" data-testid="unit-status">
          {view && view.state.kind !== 'saved' && <SavedWords view={view} />}
        </span>
      </div>
      {error && (
        <p className="text-heat" role="alert">
          The facts of this unit could not be read: {error.message}.{' '}
          <button type="button" className="underline cursor-pointer" onClick={again}>
            Try again
          </button>
        </p>
      )}
      {view &&
        FIELDS.map(([field, name, hint]) => (
          <FieldRow key={field} name={name}>
            <PlainInput
              label={name}
              value={field === 'receivedOn' && typed !== null ? typed : String(facts[field] ?? '')}
              hint={hint}
              error={issues.get(field)}
              said={field === 'receivedOn' && typed !== null ? dayWords(typed) : undefined}
              onChange={(text) => {
                if (field === 'receivedOn') setTyped(text);
                set(field, field === 'receivedOn' ? (readDate(text) ?? text) : text);
              }}
              onBlur={() => setTyped(null)}
            />
          </FieldRow>
        ))}
      {view?.state.kind === 'conflict' && (
        <ConflictPanel
          kind="unit"
          conflicts={view.state.conflicts}
          choose={keeper!.choose}
          nameOf={(path) => FIELDS.find(([field]) => field === path)?.[1] ?? path}
        />
      )}
      <p className="text-small text-quiet pt-2">
        The serial number stays in this library; exported records leave it out.
      </p>
    </section>
  );
}
