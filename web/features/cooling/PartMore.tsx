import type { ReactNode } from 'react';
import { partsOf, type Part, type PartList } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { ChoiceInput } from '../../documents/record/ChoiceInput';
import { FieldRow } from '../../kit/FieldRow';
import { FigureInput } from '../../documents/record/FigureInput';
import { RefsInput } from '../../documents/record/RefsInput';
import { RowsEditor } from '../../documents/record/RowsEditor';
import { TextInput } from '../../documents/record/TextInput';
import { WordsInput } from '../../documents/record/WordsInput';

const CURVE = [
  { path: ['rpm'], header: 'speed', unit: 'rpm' },
  { path: ['flowLps'], header: 'flow', unit: 'L/s' },
  { path: ['pressurePa'], header: 'pressure', unit: 'Pa' },
];

/** What is recorded of a part beyond its row. */
export function PartMore({ list, index, part }: { list: PartList; index: number; part: Part }) {
  const { draft } = useMachineFile();
  const at = (...field: (string | number)[]) => [list, index, ...field];
  switch (list) {
    case 'dies':
      return (
        <More>
          <FieldRow name="Reported watts mean">
            <ChoiceInput
              path={at('powerMeaning')}
              label={`${part.id}, reported watts mean`}
              options={['package', 'board', 'die']}
              empty="not recorded"
            />
          </FieldRow>
        </More>
      );
    case 'plates':
      return (
        <More>
          <FieldRow name="Covers besides">
            <WordsInput
              path={at('covers')}
              label={`${part.id}, covers besides the dies`}
              hint="gpu-memory, gpu-regulators"
            />
          </FieldRow>
        </More>
      );
    case 'heatPipes':
      return (
        <More>
          <FieldRow name="Flattened width" unit="mm">
            <FigureInput
              path={at('flattenedWidthMm')}
              label={`${part.id}, flattened width`}
              unit="mm"
            />
          </FieldRow>
        </More>
      );
    case 'finStacks':
      return (
        <More>
          <FieldRow name="Joined to pipes">
            <ChoiceInput
              path={at('joined')}
              label={`${part.id}, joined`}
              options={['one-side', 'both-sides']}
              empty="one side?"
            />
          </FieldRow>
          {partsOf(draft, 'heatPipes').length > 1 && (
            <FieldRow name="Pipes from the fan on">
              <RefsInput
                path={at('pipesFromFan')}
                label={`${part.id}, pipes in the order of the air`}
                ids={partsOf(draft, 'heatPipes').map((p) => p.id)}
              />
            </FieldRow>
          )}
        </More>
      );
    case 'fans':
      return (
        <div className="px-1.5 py-2 border-b border-rule">
          <RowsEditor
            path={at('curve')}
            columns={CURVE}
            title={`curve of ${part.id}`}
            empty="No curve: coefficients for its kind are taken. A datasheet’s points or a measured curve narrow the band."
          />
        </div>
      );
    case 'vents':
      return (
        <More>
          <FieldRow name="Covered by">
            <TextInput path={at('coveredBy')} label={`${part.id}, covered by`} />
          </FieldRow>
        </More>
      );
    case 'pads':
      return (
        <More>
          <FieldRow name="Conducts" unit="W/mK">
            <FigureInput
              path={at('conductivityWmK')}
              label={`${part.id}, conductivity`}
              unit="W/mK"
              assumedPath={`pads.${part.id}.conductivityWmK`}
            />
          </FieldRow>
        </More>
      );
    default:
      return null;
  }
}

function More({ children }: { children: ReactNode }) {
  return (
    <section
      aria-label="beyond the row"
      className="grid grid-cols-[minmax(0,1fr)] md:grid-cols-2 gap-x-8 px-1.5 py-1"
    >
      {children}
    </section>
  );
}
