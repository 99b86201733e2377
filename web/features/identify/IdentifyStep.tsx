import { useEffect, useRef, useState } from 'react';
import { enterField } from '../../kit/fieldOrder';
import { AttachmentStrip } from '../../documents/photos/AttachmentStrip';
import { columnsOf } from '../../documents/record/columns';
import { useMachineFile } from '../../documents/record/MachineFile';
import { Kbd } from '../../kit/Kbd';
import { PartTable } from '../../documents/record/PartTable';
import { RecordField } from '../../documents/record/RecordField';
import { FamilyPanel } from './FamilyPanel';
import { UnitSection } from './UnitSection';

const SETTING_COLUMNS = columnsOf(
  'settings',
  ['preset', 'w-32'],
  ['fanMode', 'w-28'],
  ['cpuSustainedW', 'w-28'],
  ['cpuShortW', 'w-20'],
  ['cpuShortWindowS', 'w-20'],
  ['gpuSustainedW', 'w-28'],
  ['skinHeld', 'w-24'],
  ['later.cpuSustainedW', 'w-24'],
  ['later.afterS', 'w-20'],
);

const IDENTITY = [
  'maker',
  'model',
  'modelCode',
  'modelCodeFrom',
  'variant',
  'firmware',
  'year',
] as const;

/** Which machine this is, and what its settings allow. A finding holds for the variant that was opened. */
export function IdentifyStep() {
  const { made } = useMachineFile();
  // stays where it is until the step is left: nothing moves under a typing hand
  const [isNew] = useState(!made);
  const fresh = useRef(!made);
  useEffect(() => {
    const first = document.getElementById('field-identity.maker');
    if (fresh.current && first) enterField(first);
    fresh.current = false;
  }, []);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-6">
      {isNew && (
        <p className="text-quiet border-l-2 border-air pl-3">
          A new machine. Type its maker and model from the underside first: with the first letter it
          stands in the library. Then look at it from outside <Kbd>o</Kbd>, or go straight to its
          cooling <Kbd>k</Kbd>
        </p>
      )}
      <div className="grid grid-cols-[minmax(0,1fr)] md:grid-cols-2 gap-x-10 gap-y-4">
        <section aria-label="identity">
          {IDENTITY.map((field) => (
            <RecordField key={field} path={['identity', field]} />
          ))}
        </section>
        <section aria-label="power">
          <RecordField path={['power', 'source']} empty="mains?" />
          <RecordField path={['power', 'adapterW']} />
          <RecordField path={['power', 'restW']} />
          <RecordField path={['power', 'adjustable']} />
          <p className="text-small text-quiet pt-2">
            Never open a mains adapter; read its rating from the label.
          </p>
        </section>
      </div>
      {made ? (
        <>
          <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-10 gap-y-6">
            <UnitSection />
            <FamilyPanel />
          </div>
          <section aria-label="photos of the machine">
            <h2 className="font-semibold mb-1">Photos and papers of the machine</h2>
            <AttachmentStrip path="" words="the machine" />
          </section>
        </>
      ) : null}
      <section aria-label="settings">
        <h2 className="font-semibold mb-1">Settings of the firmware</h2>
        <PartTable
          list="settings"
          word="setting"
          columns={SETTING_COLUMNS}
          empty="No setting recorded. Without one only the adapter cuts what the cooling can carry."
        />
      </section>
    </div>
  );
}
