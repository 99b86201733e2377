import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { isRecordedOtherwise } from '@zugluft/core/documents/recount';
import type { Json } from '@zugluft/core/record/plainJson';
import { AirwayMap } from '../../documents/airway/AirwayMap';
import { partsOf } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { RecordField } from '../../documents/record/RecordField';
import { enterField } from '../../kit/fieldOrder';
import { assumedInCount } from './assumedInCount';
import { CountForm } from './CountForm';
import { LikeAnother } from './LikeAnother';
import { MeasureOrder } from './MeasureOrder';
import { useCount } from './useCount';

/** A machine just opened: what one counts and sees makes a whole record, a drawing and a first answer with its band. */
export function CountStep() {
  const { draft, machine, made, live, typing } = useMachineFile();
  const file = useCount();
  const { parsed } = file;
  const otherwise = isRecordedOtherwise(draft as Json);
  const [isNew] = useState(!made);
  useEffect(() => {
    const first = document.getElementById('count-fans');
    if (isNew && first) enterField(first);
  }, [isNew]);
  const assumed = useMemo(
    () => assumedInCount(parsed.record, live.estimate?.assumed ?? []),
    [parsed.record, live.estimate],
  );
  // before the first answer nothing that is still to be counted is a mistake
  const answered = partsOf(draft, 'fans').length > 0;
  const judged = useMemo(
    () =>
      new Map(
        typing
          ? []
          : parsed.issues
              .filter((i) => answered || i.kind === 'impossible')
              .map((i) => [i.path, i.message]),
      ),
    [parsed.issues, typing, answered],
  );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[minmax(0,23rem)_minmax(0,1fr)] gap-x-6 gap-y-4">
      <section aria-label="count what you see">
        <h2 className="font-semibold">Count what you see</h2>
        {otherwise ? (
          <p className="text-quiet py-2">
            This machine’s figures stand in its record already, or were taken from another one. They
            are measured where they stand, in its{' '}
            <Link to={`/machines/${machine.id}/cooling`} className="underline underline-offset-2">
              cooling
            </Link>
            ; a machine just opened is counted anew from the library.
          </p>
        ) : (
          <>
            <p className="text-quiet text-[0.9rem] mb-1">
              Enter goes on, blank is assumed. Everything can be measured later.
            </p>
            <CountForm file={file} assumed={assumed} judged={judged} />
            {answered && !parsed.record && !typing && (
              <p className="text-small pt-2" role="status">
                <span className="text-heat font-semibold">Last good answer.</span> It follows again
                once the count can be.
              </p>
            )}
            {!answered && parsed.issues.every((i) => i.kind === 'missing') && (
              <p className="text-small text-quiet pt-2" data-testid="count-open">
                For a first answer: fans, how wide they are, and the width and depth of a fin stack,
                or the fin area.
              </p>
            )}
            <div className="pt-2 text-small">
              <LikeAnother />
            </div>
          </>
        )}
        <div className="pt-4">
          <RecordField path={['identity', 'maker']} />
          <RecordField path={['identity', 'model']} />
        </div>
      </section>
      <div className="min-w-0">
        <AirwayMap
          chosen={undefined}
          choose={() => undefined}
          empty="The airway map is drawn here as soon as the fans and the fins are counted."
        />
        <MeasureOrder />
      </div>
    </div>
  );
}
