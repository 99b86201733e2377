import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { toast } from 'sonner';
import { figureValue, type Figure } from '@zugluft/core/record/figure';
import { placesOfMarks } from '@zugluft/core/photo/placesOfMarks';
import { renewalsOf, type Renewal } from '@zugluft/core/photo/renewals';
import { isPaper, type Attachment } from '../../api/attachments';
import { KeptTrouble } from '../../documents/KeptTrouble';
import { useAttachments } from '../../documents/photos/AttachmentsProvider';
import { addPart, getAt, partsOf, setAt, type Draft } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { OnceMade } from '../../documents/record/OnceMade';
import { SavedWords } from '../../documents/SavedWords';
import { Kbd } from '../../kit/Kbd';
import { newPartOf } from './figureChoices';
import { askOf } from './marking';
import { useMarking } from './useMarking';
import { MarkTable } from './MarkTable';
import { PhotoPane } from './PhotoPane';
import { ReferenceList } from './ReferenceList';
import { TakeOver } from './TakeOver';
import { ToolBar } from './ToolBar';
import { useMarks } from './useMarks';
import { usePageChanges } from './usePageChanges';
import { usePasses } from './usePasses';
import { useMeasures } from './useMeasures';
import { useProposals } from './useProposals';
import { useSnap } from './useSnap';
import { Proposals } from './Proposals';
import { GoTo } from './GoTo';
import { HandButtons } from './HandButtons';

/** Figures read off a photo: what is known in it, what is marked, what goes into the record. */
export function MeasurePage() {
  return (
    <OnceMade>
      <OfPhoto />
    </OnceMade>
  );
}

function OfPhoto() {
  const { photo: id } = useParams();
  const { machine } = useMachineFile();
  const { items, loading, error } = useAttachments();
  const photo = items.find((a) => a.id === id);
  if (photo && !isPaper(photo)) return <Measuring key={photo.id} photo={photo} />;
  return (
    <p className="text-quiet" role={error ? 'alert' : undefined}>
      {loading
        ? 'Opening.'
        : error
          ? `The photos could not be read: ${error.message}.`
          : photo
            ? 'Only photos are measured, no papers.'
            : 'There is no such photo here; it may have been put aside.'}{' '}
      <Link
        to={`/machines/${machine.id}/photos`}
        className="underline underline-offset-2 inline-block py-1"
      >
        Photos and papers
      </Link>
    </p>
  );
}

function Measuring({ photo }: { photo: Attachment }) {
  const { draft, machine } = useMachineFile();
  const own = useMarks(photo);
  const { marks, ready, view, keeper, error, again } = own;
  const { changeMarks: change, changeRecord } = usePageChanges(own);
  const measures = useMeasures(photo, marks);
  const size = useMemo(() => [photo.widthPx!, photo.heightPx!] as const, [photo]);
  const snap = useSnap(photo);
  const proposals = useProposals(photo);
  const hasScale = measures.scale !== null;
  const shellMm = useMemo(() => shellOf(draft), [draft]);
  const renewals = useMemo(
    () => (measures.pending ? [] : renewalsOf(draft, photo.id, marks, measures)),
    [draft, photo.id, marks, measures],
  );
  const places = useMemo(() => newPlaces(draft, size, photo, marks), [draft, size, photo, marks]);

  const { passes, takePasses } = usePasses(photo, marks, measures, changeRecord);

  const takeOver = (list: readonly Renewal[]) => {
    if (list.length === 0) return;
    changeRecord((d) => list.reduce((now, r) => setAt(now, r.at, r.after), d));
    toast(
      `${list.length === 1 ? 'One figure' : `${list.length} figures`} taken into the record; undo brings back what was there`,
    );
  };
  const belongs = (index: number, choice: string) => {
    const fresh = newPartOf(choice);
    let figure: string | null = choice || null;
    if (fresh) {
      const next = addPart(draft, fresh.list);
      figure = `${fresh.list}.${partsOf(next, fresh.list).at(-1)!.id}.${fresh.field}`;
      changeRecord((d) => addPart(d, fresh.list));
    }
    change((d) => ({ ...d, marks: d.marks.map((m, i) => (i === index ? { ...m, figure } : m)) }));
  };
  const hand = useMarking({
    size,
    marks,
    shellMm,
    change,
    snap,
    takeAll: () => takeOver(renewals.filter((r) => !r.isSurer)),
    proposed: {
      look: () => hasScale && proposals.ask(marks),
      take: proposals.takeFirst,
      leave: () => void proposals.takeFirst(),
    },
  });
  const { marking, thing, setThing, focus, goingTo, take, hold, remove, arrive, acts } = hand;

  if (error) {
    return (
      <p className="text-heat" role="alert">
        The marks could not be read: {error.message}.{' '}
        <button type="button" className="btn btn-sm" onClick={again}>
          Try again
        </button>
      </p>
    );
  }
  const ask = askOf(marking);
  return (
    <div className="space-y-2">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 className="font-semibold">{photo.caption || photo.name}</h2>
        <Link
          to={`/machines/${machine.id}/photos`}
          className="text-quiet text-[0.9rem] underline underline-offset-2 py-1"
        >
          all photos
        </Link>
        <span className="grow" />
        <span className="text-small text-quiet" role="status">
          {view && view.state.kind !== 'saved' && <SavedWords view={view} />}
          {measures.pending && ' measuring'}
        </span>
      </div>
      <ToolBar tool={marking.tool} take={take} />
      <PhotoPane
        photo={photo}
        marks={marks}
        measures={measures}
        marking={marking}
        proposals={proposals.items ?? []}
        acts={acts}
        focus={focus}
      />
      <div className="min-h-6 text-small text-quiet flex flex-wrap gap-x-3 gap-y-1 items-center">
        {goingTo ? (
          <GoTo size={size} go={arrive} close={() => arrive(null)} />
        ) : ask ? (
          <span className="text-ink" data-testid="ask">
            {ask}
          </span>
        ) : (
          <span>
            <Kbd>[</Kbd> <Kbd>]</Kbd> marks <Kbd>,</Kbd> <Kbd>.</Kbd> their points
          </span>
        )}
        <HandButtons hand={hand} />
        <span className="figure" data-testid="cursor">
          {marking.cursor.map((x) => x.toFixed(0)).join(', ')} px
        </span>
      </div>
      <Proposals
        items={proposals.items}
        looking={proposals.looking}
        error={proposals.error}
        hasScale={hasScale}
        look={() => proposals.ask(marks)}
        take={hand.takeProposal}
        leave={() => void proposals.takeFirst()}
      />
      {measures.error && (
        <p className="text-heat text-small" role="alert">
          Widths, fins and open shares are not measured: {measures.error.message}.
        </p>
      )}
      <KeptTrouble kind="marks" view={view} keeper={keeper} />
      {ready && (
        <div className="space-y-3">
          <ReferenceList
            marks={marks}
            measures={measures}
            held={marking.held}
            shellMm={shellMm}
            thing={thing}
            setThing={setThing}
            take={(t) => take({ as: 'reference', thing: t })}
            hold={hold}
            change={(index, reference) =>
              change(
                (d) => ({
                  ...d,
                  references: d.references.map((r, i) => (i === index ? reference : r)),
                }),
                `references.${index}`,
              )
            }
            remove={(index) => remove({ list: 'references', index, point: null })}
          />
          <section aria-label="marks">
            <h3 className="font-semibold text-[0.95rem]">Marks</h3>
            <MarkTable
              marks={marks}
              measures={measures}
              pending={measures.pending}
              held={marking.held}
              draft={draft}
              hold={(index) => hold({ list: 'marks', index, point: null })}
              change={(index, mark) =>
                change(
                  (d) => ({
                    ...d,
                    marks: d.marks.map((m, i) => (i === index ? { ...m, mark } : m)),
                  }),
                  `marks.${index}`,
                )
              }
              belongs={belongs}
              remove={(index) => remove({ list: 'marks', index, point: null })}
            />
          </section>
          <TakeOver
            renewals={renewals}
            places={places}
            passes={passes}
            pending={measures.pending}
            take={takeOver}
            takePasses={takePasses}
            takePlaces={() => {
              changeRecord((d) =>
                places.reduce(
                  (now, { part, xMm, yMm }) => setAt(now, ['airway', 'places', part], { xMm, yMm }),
                  d,
                ),
              );
              toast('Places taken over; undo brings back what was there');
            }}
          />
        </div>
      )}
    </div>
  );
}

/** Width and depth of the shell as recorded. */
function shellOf(draft: Draft): readonly [number, number] | null {
  const [w, d] = ['widthMm', 'depthMm'].map((k) =>
    figureValue(getAt(draft, ['shell', k]) as Figure | undefined),
  );
  return typeof w === 'number' && typeof d === 'number' && w > 0 && d > 0 ? [w, d] : null;
}

/** Places that marks tell and the record has not. */
function newPlaces(
  draft: Draft,
  size: readonly [number, number],
  { focalPx }: Attachment,
  marks: Parameters<typeof placesOfMarks>[2],
) {
  return placesOfMarks(size, { focalPx }, marks).filter(({ part, xMm, yMm }) => {
    const now = getAt(draft, ['airway', 'places', part]) as
      { xMm?: unknown; yMm?: unknown } | undefined;
    return now?.xMm !== xMm || now.yMm !== yMm;
  });
}
