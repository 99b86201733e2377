import { fieldAt } from '@zugluft/core/record/fieldTable';
import type { ReactNode } from 'react';
import { partsOf, type Part, type PartList } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { FieldRow } from '../../kit/FieldRow';
import { RecordField } from '../../documents/record/RecordField';
import { RowsEditor } from '../../documents/record/RowsEditor';
import { WordsInput } from '../../documents/record/WordsInput';

const CURVE = ['rpm', 'flowLps', 'pressurePa'].map((field) => {
  const { title, unit } = fieldAt(`fans.0.curve.0.${field}`)!;
  return { path: [field], header: title, unit };
});

/** What is recorded of a part beyond its row. */
export function PartMore({ list, index, part }: { list: PartList; index: number; part: Part }) {
  const { draft } = useMachineFile();
  const at = (...field: (string | number)[]) => [list, index, ...field];
  switch (list) {
    case 'dies':
      return (
        <More>
          <RecordField path={at('powerMeaning')} part={part.id} empty="not recorded" />
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
          <RecordField path={at('flattenedWidthMm')} part={part.id} />
        </More>
      );
    case 'finStacks':
      return (
        <More>
          <RecordField path={at('joined')} part={part.id} empty="one side?" />
          {partsOf(draft, 'heatPipes').length > 1 && (
            <RecordField path={at('pipesFromFan')} part={part.id} />
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
          <RecordField path={at('rimMm')} part={part.id} />
          <RecordField path={at('coveredBy')} part={part.id} />
        </More>
      );
    case 'pads':
      return (
        <More>
          <RecordField path={at('conductivityWmK')} part={part.id} />
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
