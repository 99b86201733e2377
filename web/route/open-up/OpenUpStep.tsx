import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { backTogether } from '@zugluft/core/service/backTogether';
import { figureValue, type Figure } from '@zugluft/core/record/figure';
import { openUpKeys, readLog, type KeptLog, type OpenUpLog } from '../../api/openUp';
import { getAt } from '../../machine/draft';
import { useMachineFile } from '../../machine/MachineFile';
import { useKeys } from '../../ui/useKeys';
import { BalancePanel } from './BalancePanel';
import { LayerTabs } from './LayerTabs';
import { addLayer, withLayer } from './logEdits';
import { ScrewMap } from './ScrewMap';
import { StepList } from './StepList';
import { readKeptLog, useOpenUpLog } from './useOpenUpLog';
import { WayPanel } from './WayPanel';

/** The log of the opening: steps, screws, what must come off for a goal, and the way back. */
export function OpenUpStep() {
  const { machine } = useMachineFile();
  const { data, error, refetch } = useQuery({
    queryKey: openUpKeys.of(machine.id),
    queryFn: () => readLog(machine.id),
    staleTime: Infinity,
    gcTime: 0,
    retry: 0,
    refetchOnWindowFocus: false,
  });
  // what this browser kept can be gone on with while the server is away
  const [kept] = useState(() => readKeptLog(machine.id));
  const start = data ?? (error ? kept : null);
  if (start) return <LogView key={data ? 'read' : 'kept'} start={start} />;
  if (!error) return <p className="text-quiet">Opening the log.</p>;
  return (
    <div>
      <p className="text-heat mb-2" role="alert">
        The log could not be read: {error.message}.
      </p>
      <button type="button" className="btn btn-sm" onClick={() => void refetch()}>
        Try again
      </button>
    </div>
  );
}

function LogView({ start }: { start: KeptLog }) {
  const { machine, draft } = useMachineFile();
  const { log: raw, saving, change, undo, redo, choose } = useOpenUpLog(machine.id, start);
  const [chosen, setChosen] = useState<string | undefined>();
  const [back, setBack] = useState(false);
  const [layerId, setLayerId] = useState<string | undefined>();
  useKeys({ 'mod+z': undo, 'shift+mod+z': redo, 'mod+y': redo }, true, true);
  useKeys({ v: () => setBack((x) => !x) });
  const size = (field: string, otherwise: number) => {
    const value = figureValue(getAt(draft, ['shell', field]) as Figure | undefined);
    return typeof value === 'number' && value > 0 && value <= 800 ? value : otherwise;
  };
  const outline = { widthMm: size('widthMm', 355), depthMm: size('depthMm', 245) };
  const log = withLayer(raw, outline);
  const layer = log.layers.find((l) => l.id === layerId) ?? log.layers[0]!;
  const edit = (make: (log: OpenUpLog) => OpenUpLog) => change((l) => make(withLayer(l, outline)));
  const way = useMemo(() => (back ? backTogether(raw) : []), [back, raw]);
  const tightening = way.find((w) => w.undoes === chosen)?.tightening ?? way[0]?.tightening;
  const order = new Map((tightening?.order ?? []).map((id, i) => [id, i + 1]));
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[19rem_minmax(0,1fr)] gap-x-8 gap-y-6 content-start">
      <div className="grid grid-cols-[minmax(0,1fr)] gap-6 content-start">
        <StepList log={log} chosen={chosen} choose={setChosen} change={edit} />
        <WayPanel log={log} />
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-5 content-start">
        <div>
          <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 mb-1">
            <LayerTabs
              log={log}
              at={layer.id}
              choose={setLayerId}
              add={(name) => edit((l) => addLayer(l, name))}
            />
            <label className="flex items-center gap-2 text-[0.9rem]">
              <input
                type="checkbox"
                className="toggle toggle-sm"
                checked={back}
                onChange={(e) => setBack(e.currentTarget.checked)}
              />
              way back
            </label>
            <span className="text-[0.85rem] text-quiet" role="status" data-testid="log-saving">
              {saving.kind === 'saving' && 'saving'}
              {saving.kind === 'saved' && 'kept'}
              {saving.kind === 'away' && 'kept here; the server is away'}
            </span>
          </div>
          {saving.kind === 'refused' && (
            <p className="text-heat" role="alert">
              Not saved: {saving.message}. It is kept in this browser.
            </p>
          )}
          {saving.kind === 'conflict' && (
            <div role="alert" className="border-l-2 border-heat pl-2 my-2">
              <p className="mb-1">This log was changed in another window meanwhile.</p>
              <div className="flex gap-2">
                <button type="button" className="btn btn-sm" onClick={() => choose(true)}>
                  Keep what stands here
                </button>
                <button type="button" className="btn btn-sm" onClick={() => choose(false)}>
                  Take the other version
                </button>
              </div>
            </div>
          )}
          <ScrewMap
            log={log}
            layer={layer}
            stepId={chosen ?? log.steps.at(-1)?.id}
            order={order}
            change={edit}
          />
        </div>
        {back && (
          <section aria-label="way back" className="text-[0.95rem]">
            <h2 className="font-semibold mb-1">Back together</h2>
            <ol className="list-decimal pl-6" data-testid="way-back">
              {way.map((w) => (
                <li key={w.undoes ?? w.name}>
                  {w.name}
                  <span className="text-quiet text-[0.9rem]">
                    {w.screws
                      .map(
                        (s) =>
                          ` · ${s.holes.length} × ${log.groups.find((g) => g.id === s.group)?.letter ?? '?'}`,
                      )
                      .join('')}
                    {w.tightening &&
                      ` · ${w.tightening.by === 'printed' ? 'by the printed numbers' : 'crosswise'}, two rounds`}
                    {w.connectors.map(
                      (c) => ` · ${c.id}${c.closeLatch ? ', close its latch' : ''}`,
                    )}
                  </span>
                </li>
              ))}
            </ol>
          </section>
        )}
        <BalancePanel log={log} />
        <p className="text-[0.85rem] text-quiet">
          Battery off first, before anything else is touched. A bulge, heat or a smell: stop. Static
          discharge kills parts: strap or mat. Local rules for batteries and waste apply.
        </p>
      </div>
    </div>
  );
}
