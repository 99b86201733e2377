import { useCommands } from '../../documents/commands';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { machineKeys, type BandedMachine } from '../../api/machines';
import type { OpenedMachine } from '../../documents/record/openedMachine';
import { AttachmentsProvider, useAttachments } from '../../documents/photos/AttachmentsProvider';
import type { HttpProblem } from '../../api/http';
import { MachineFile, useMachineFile } from '../../documents/record/MachineFile';
import { ConflictPanel } from '../../documents/ConflictPanel';
import { keeperOf, onArrived } from '../../documents/keepers';
import { useCover } from '../../documents/opinion/useCover';
import { readOpened } from '../../documents/record/readAhead';
import { freshMachine, isBegun, nowMade } from '../../documents/record/freshMachine';
import { useUndoWithPlace } from './useUndoWithPlace';
import { PageFrame } from '../../kit/PageFrame';
import { Modal } from '../../kit/Modal';
import { machineName } from '../../documents/record/machineName';
import { HowToMeasure } from '../../documents/record/measure/HowToMeasure';
import { MeasureNext } from './MeasureNext';
import { ONE_COLUMN, useNarrow } from '../../kit/useNarrow';
import { AnswerBar } from './AnswerBar';
import { GuessForm } from './GuessForm';
import { RouteLink } from './RouteLink';
import { useProgress } from './useProgress';
import { ReadoutPanel } from './ReadoutPanel';
import { SaveStatus } from './SaveStatus';
import { STEPS, stepOf } from '../../documents/route/steps';

/** What the server has of a machine; a new one where it was begun here and it has none, or cannot be asked. */
async function readOrBegin(id: string, fresh: boolean): Promise<BandedMachine> {
  if (isBegun(id)) return freshMachine(id);
  try {
    return await readOpened(id);
  } catch (cause) {
    const { status } = cause as HttpProblem;
    if (fresh && (status === 404 || status === 0)) return freshMachine(id);
    throw cause;
  }
}

/** A machine's file: the route on the left, the step in the middle, the answer on the right. */
export function MachinePage() {
  const { id = '' } = useParams();
  const fresh = (useLocation().state as { fresh?: boolean } | null)?.fresh === true;
  const client = useQueryClient();
  const { data, error, refetch } = useQuery({
    queryKey: machineKeys.one(id),
    queryFn: async (): Promise<OpenedMachine> => {
      const machine = await readOrBegin(id, fresh);
      const { record, revision, updatedAt } = machine;
      const start = { revision, value: record, at: new Date(updatedAt) };
      return { machine, keeper: await keeperOf('record', id, start) };
    },
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
    // what this browser knows is opened also while the machine has no network
    networkMode: 'always',
  });
  // a new machine has its unit and its place in the library once its first figure is kept
  useEffect(
    () =>
      onArrived((kind, of, { revision }) => {
        if (kind !== 'record' || of !== id || revision !== 1) return;
        nowMade(id);
        void refetch();
        void client.invalidateQueries({ queryKey: ['machines', 'list'] });
      }),
    [id, refetch, client],
  );
  if (error) {
    const gone = (error as HttpProblem).status === 404 || (error as HttpProblem).status === 400;
    return (
      <PageFrame crumbs={[]}>
        <main className="p-6">
          <h1 className="text-lg font-semibold mb-2">
            {gone ? 'No such machine' : 'The machine could not be read'}
          </h1>
          <p className="text-quiet mb-3">
            {gone
              ? 'It may have been removed, or the address is wrong.'
              : `${error.message}. What was typed is kept in this browser.`}
          </p>
          {!gone && (
            <button type="button" className="btn btn-sm" onClick={() => void refetch()}>
              Try again
            </button>
          )}
        </main>
      </PageFrame>
    );
  }
  if (!data) {
    return (
      <PageFrame crumbs={[]}>
        <main className="p-6 text-quiet">Opening.</main>
      </PageFrame>
    );
  }
  return (
    <MachineFile key={id} machine={data.machine} keeper={data.keeper}>
      <AttachmentsProvider machineId={id} made={data.machine.revision > 0}>
        <FilePage />
      </AttachmentsProvider>
    </MachineFile>
  );
}

/** Steps that say how many watts it holds. */
const SHOWS_ANSWER: ReadonlySet<string> = new Set(['estimate', 'runs', 'levers', 'verdict']);

function FilePage() {
  const { draft, issues, kept, machine, made } = useMachineFile();
  const { cover, uncover } = useCover(machine.id, made);
  const { undo, redo } = useUndoWithPlace();
  const progress = useProgress();
  const navigate = useNavigate();
  const { name, variant } = machineName(draft);
  const go = (to: string) => () => void navigate(`/machines/${machine.id}/${to}`);
  useCommands({
    undo,
    redo,
    photos: go('photos'),
    history: go('history'),
    'bench-sheet': go('bench-sheet'),
    count: go('count'),
    export: () => location.assign(`/api/exchange/machines/${machine.id}.json`),
    ...Object.fromEntries(STEPS.map((s) => [s.path, go(s.path)])),
  });
  // on a narrow screen the bar of steps is wider than the screen: the one that is open is in sight
  const steps = useRef<HTMLElement>(null);
  const narrow = useNarrow(ONE_COLUMN);
  const { pathname } = useLocation();
  useEffect(() => {
    const bar = steps.current;
    const here = bar?.querySelector<HTMLElement>('[aria-current="page"]');
    if (!bar || !here || bar.scrollWidth <= bar.clientWidth) return;
    bar.scrollLeft = here.offsetLeft - (bar.clientWidth - here.offsetWidth) / 2;
  }, [pathname]);
  return (
    <PageFrame
      crumbs={[name, variant, machine.stateName === 'as found' ? '' : machine.stateName]}
      status={<SaveStatus />}
    >
      <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[11.5rem_minmax(0,1fr)_21rem] lg:h-[calc(100vh-3.2rem)]">
        <nav
          ref={steps}
          aria-label="steps"
          className="border-r border-rule p-3 lg:pt-4 flex lg:block gap-1 overflow-x-auto relative no-print"
        >
          {STEPS.map((s) => (
            <RouteLink
              key={s.path}
              machineId={machine.id}
              step={s}
              progress={progress[s.path]}
              open={issues.filter((i) => stepOf(i.path) === s.path).length}
            />
          ))}
          <hr className="hidden lg:block border-rule my-2" />
          <PhotosLink machineId={machine.id} />
          <MeasureNext />
        </nav>
        <main data-fields className="p-4 lg:overflow-y-auto min-w-0">
          <h1 className="sr-only">
            {name}, {variant}
          </h1>
          {cover !== 'none' && SHOWS_ANSWER.has(pathname.split('/')[3] ?? '') ? (
            <p className="text-quiet">It shows once the answer is uncovered.</p>
          ) : (
            <Outlet />
          )}
        </main>
        {narrow && cover === 'none' ? (
          <AnswerBar />
        ) : (
          <aside
            aria-label="answer"
            className={
              narrow
                ? 'sticky bottom-0 z-30 bg-base-100 border-t border-ink p-3 no-print'
                : 'border-l border-rule p-4 lg:overflow-y-auto no-print'
            }
            tabIndex={0}
          >
            {cover === 'none' && <ReadoutPanel />}
            {cover === 'asks' && <GuessForm uncover={uncover} />}
          </aside>
        )}
      </div>
      <HowToMeasure />
      <Modal title="Changed in another window" open={kept.state.kind === 'conflict'}>
        {kept.state.kind === 'conflict' && (
          <ConflictPanel
            kind="record"
            conflicts={kept.state.conflicts}
            choose={kept.keeper.choose}
          />
        )}
      </Modal>
    </PageFrame>
  );
}

/** The way to the photos: beside the route, since they come with every step of it. */
function PhotosLink({ machineId }: { machineId: string }) {
  const { items, sending } = useAttachments();
  return (
    <NavLink
      to={`/machines/${machineId}/photos`}
      title="key p"
      className={({ isActive }) =>
        `flex shrink-0 items-center gap-3 py-1.5 px-2 rounded-sm whitespace-nowrap ${isActive ? 'font-semibold' : 'text-quiet hover:text-ink'}`
      }
    >
      <span className="grow">Photos and papers</span>
      <span className="figure text-small">
        {sending.some((s) => s.state !== 'refused') ? 'sending' : items.length || ''}
      </span>
    </NavLink>
  );
}
