import { AttachmentStrip } from '../../documents/photos/AttachmentStrip';
import { setAt, type Draft } from '../../documents/record/draft';
import { ChoiceInput } from '../../documents/record/ChoiceInput';
import { FieldRow } from '../../kit/FieldRow';
import { FigureInput } from '../../documents/record/FigureInput';
import { PartTable, type Column } from '../../documents/record/PartTable';
import { RefsInput } from '../../documents/record/RefsInput';
import { TextInput } from '../../documents/record/TextInput';
import { FamilyPanel } from './FamilyPanel';
import { UnitSection } from './UnitSection';

const SETTING_COLUMNS: Column[] = [
  { kind: 'text', header: 'preset', field: 'preset', width: 'w-32' },
  { kind: 'text', header: 'fan mode', field: 'fanMode', width: 'w-28' },
  { kind: 'figure', header: 'CPU sustained', unit: 'W', field: 'cpuSustainedW', width: 'w-28' },
  { kind: 'figure', header: 'short', unit: 'W', field: 'cpuShortW', width: 'w-20' },
  { kind: 'figure', header: 'window', unit: 's', field: 'cpuShortWindowS', width: 'w-20' },
  { kind: 'figure', header: 'GPU sustained', unit: 'W', field: 'gpuSustainedW', width: 'w-28' },
  { kind: 'figure', header: 'later, CPU', unit: 'W', field: 'later.cpuSustainedW', width: 'w-24' },
  { kind: 'figure', header: 'after', unit: 's', field: 'later.afterS', width: 'w-20' },
];

const IDENTITY: [string, string][] = [
  ['maker', 'Maker'],
  ['model', 'Model'],
  ['modelCode', 'Model code'],
  ['modelCodeFrom', 'Code read from'],
  ['variant', 'Variant'],
  ['firmware', 'Firmware'],
];

function writeYear(draft: Draft, text: string): Draft {
  const trimmed = text.trim();
  const year = /^\d+$/.test(trimmed) ? Number(trimmed) : trimmed || undefined;
  return setAt(draft, ['identity', 'year'], year);
}

/** Which machine this is, and what its settings allow. A finding holds for the variant that was opened. */
export function IdentifyStep() {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-6">
      <div className="grid grid-cols-[minmax(0,1fr)] md:grid-cols-2 gap-x-10 gap-y-4">
        <section aria-label="identity">
          {IDENTITY.map(([field, name]) => (
            <FieldRow key={field} name={name}>
              <TextInput path={['identity', field]} label={name} />
            </FieldRow>
          ))}
          <FieldRow name="Year">
            <TextInput path={['identity', 'year']} label="Year" write={writeYear} />
          </FieldRow>
        </section>
        <section aria-label="power">
          <FieldRow name="Runs on">
            <ChoiceInput
              path={['power', 'source']}
              label="Runs on"
              options={['mains', 'battery']}
              empty="mains?"
            />
          </FieldRow>
          <FieldRow name="Adapter" unit="W">
            <FigureInput path={['power', 'adapterW']} label="Adapter" unit="W" />
          </FieldRow>
          <FieldRow name="Rest of the machine" unit="W">
            <FigureInput
              path={['power', 'restW']}
              label="Rest of the machine"
              unit="W"
              assumedPath="power.restW"
            />
          </FieldRow>
          <FieldRow name="The owner may set">
            <RefsInput
              path={['power', 'adjustable']}
              label="what the owner may set"
              ids={['preset', 'power-limits', 'fan-speed', 'voltage']}
            />
          </FieldRow>
          <p className="text-[0.85rem] text-quiet pt-2">
            Never open a mains adapter; read its rating from the label.
          </p>
        </section>
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-10 gap-y-6">
        <UnitSection />
        <FamilyPanel />
      </div>
      <section aria-label="photos of the machine">
        <h2 className="font-semibold mb-1">Photos and papers of the machine</h2>
        <AttachmentStrip path="" words="the machine" />
      </section>
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
