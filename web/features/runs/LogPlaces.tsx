import type { RunAnalysis, RunDocument } from '../../api/runs';
import { FieldRow } from '../../kit/FieldRow';
import { NumberInput } from './NumberInput';

const BY: Readonly<Record<string, string>> = {
  first: 'the others are laid beside it',
  clock: 'by its clock',
  correlation: 'by what both saw',
  start: 'both begin together',
  'load-start': 'by the start of the load',
  person: 'as it was put',
};

/** Where each log lies beside the first one; what was found can be moved. */
export function LogPlaces({
  run,
  places,
  change,
}: {
  run: RunDocument;
  places: NonNullable<RunAnalysis['log']['logs']>;
  change: (next: Partial<RunDocument>, what: string) => void;
}) {
  return (
    <section aria-label="where the logs lie" className="mt-3">
      <h3 className="text-small font-semibold">Logs beside each other</h3>
      {places.slice(1).map((place) => {
        const log = (run.logs ?? []).find((l) => l.id === place.id);
        if (!log) return null;
        return (
          <FieldRow key={log.id} name={log.file} unit="s">
            <div className="flex items-baseline gap-2">
              <NumberInput
                label={`${log.file} begins later by`}
                value={log.offsetS ?? Number(place.offsetS.toFixed(1))}
                low={-1e6}
                high={1e6}
                set={(offsetS) =>
                  change(
                    {
                      logs: (run.logs ?? []).map((l) => {
                        if (l.id !== log.id) return l;
                        const { offsetS: _, ...rest } = l;
                        return offsetS === null ? rest : { ...rest, offsetS };
                      }),
                    },
                    `place of ${log.file}`,
                  )
                }
              />
              <span className="text-small text-quiet whitespace-nowrap">
                {BY[log.offsetS === undefined ? place.by : 'person'] ?? place.by}
              </span>
            </div>
          </FieldRow>
        );
      })}
    </section>
  );
}
