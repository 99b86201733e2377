import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { openAt } from '@zugluft/core/service/benchEdits';
import { ACCEPT } from '../../../documents/photos/AddButton';
import { useAttachments } from '../../../documents/photos/AttachmentsProvider';
import { useMachineFile } from '../../../documents/record/MachineFile';
import { LogTrouble } from '../LogStatus';
import { useOpenUp } from '../OpenUpLog';
import { ScrewMapView } from '../ScrewMapView';
import { BackView } from './BackView';
import { benchPanel, type PanelName } from './benchPanels';
import { ChoicePanel } from './ChoicePanel';
import { EndView } from './EndView';
import { KeyStrip } from './KeyStrip';
import { OpenView } from './OpenView';
import { BenchHeader } from './BenchHeader';
import { runBenchKey, stripKeys } from './benchKeys';
import { useBench } from './useBench';
import { useBenchListener } from './useBenchListener';

/**
 * Bench mode: the whole screen, one step at a time, worked by the keypad with one hand or by touch. Everything is kept in this
 * browser at once.
 */
export function BenchMode() {
  const { machine } = useMachineFile();
  const { items, sending, queue } = useAttachments();
  const navigate = useNavigate();
  const bench = useBench();
  const { side, step, log } = bench;
  const [panelName, setPanel] = useState<PanelName | null>(null);
  const dialog = useRef<HTMLDialogElement>(null);
  const camera = useRef<HTMLInputElement>(null);
  const leave = () => {
    // at once, so that the next key is already heard by the page below
    dialog.current?.close();
    void navigate(`/machines/${machine.id}/open-up`);
  };

  useEffect(() => {
    const shown = dialog.current;
    if (shown && !shown.open) {
      shown.showModal();
      // keys are heard by the whole; no button is to look chosen
      shown.focus();
    }
    return () => shown?.close();
  }, []);

  // an empty log begins with the question what comes first
  const asked = panelName ?? (side === 'open' && !step ? 'next' : null);
  const turn = () => {
    setPanel(null);
    bench.turn(side === 'open' ? 'back' : 'open');
  };
  const end = (state: 'done' | 'skipped' | 'went-wrong') => {
    if (!bench.end(state)) setPanel('next');
  };
  const ui = {
    open: setPanel,
    photo: () => camera.current?.click(),
    end,
    turn,
    leave,
  };
  const panel = asked && benchPanel(asked, bench, ui);
  const choose = (run: () => void) => {
    setPanel(null);
    run();
  };

  const { kept } = useOpenUp();
  const onKey = (key: string): boolean => {
    // another window changed the same: that is settled before anything else is logged
    const touching = kept.state.kind === 'conflict' ? kept.state.conflicts[0] : undefined;
    if (touching && (key === '1' || key === '2')) {
      kept.keeper.choose(key === '1' ? 'mine' : 'theirs', touching.path);
      return true;
    }
    if (panel) {
      const choice = panel.choices.find((c) => c.key === key.toLowerCase());
      if (choice) choose(choice.run);
      else if (key === 'Backspace' && !panel.typed) {
        bench.undo();
        return true;
      } else if (key === 'Escape' && step) setPanel(null);
      else if (key === 'Escape') leave();
      return choice !== undefined || key === 'Escape';
    }
    return runBenchKey(key, bench, ui);
  };
  useBenchListener(dialog, onKey);

  const path = step ? `log.steps.${step.id}` : '';
  const photos = [...items, ...sending].filter((a) => a.path === path).length;
  const backOpen = bench.back ? new Set(openAt(log, bench.back).holes) : undefined;
  const backLayer = log.screws.find((s) => s.id === bench.back?.screws[0]?.holes[0])?.layer;
  const layer =
    side === 'open' ? bench.layer : (log.layers.find((l) => l.id === backLayer) ?? log.layers[0]!);
  const order = new Map(bench.order.map((id, i) => [id, i + 1]));
  return (
    <dialog
      ref={dialog}
      tabIndex={-1}
      aria-label="bench mode"
      className="bench fixed inset-0 m-0 w-screen h-dvh max-w-none max-h-none bg-base-100 text-base-content text-xl open:flex flex-col outline-none"
      onCancel={(e) => e.preventDefault()}
      // a touched button takes no focus, so that Enter still means the step and not the button once more
      onMouseDown={(e) => (e.target as Element).closest('button') && e.preventDefault()}
    >
      <BenchHeader bench={bench} turn={turn} leave={leave} />
      <LogTrouble keys />
      <div
        tabIndex={0}
        className="grow min-h-0 overflow-y-auto grid md:grid-cols-[minmax(0,5fr)_minmax(0,6fr)] gap-6 p-4"
      >
        <div>
          {side === 'open' ? (
            <OpenView bench={bench} photos={photos} />
          ) : bench.back ? (
            <BackView bench={bench} />
          ) : (
            <EndView bench={bench} />
          )}
          <p role="status" className="text-air mt-3 min-h-6">
            {bench.said}
          </p>
        </div>
        {step && (
          <div>
            <p className="text-quiet text-base mb-1">
              {layer.name}, seen from {layer.seenFrom}
              {side === 'open' && (
                <span className="text-[0.9rem]">
                  {' '}
                  · arrows or a touch say where the next screw was; else it is only counted
                </span>
              )}
            </p>
            <ScrewMapView
              log={log}
              layer={layer}
              order={order}
              marked={backOpen?.size ? backOpen : undefined}
              cursor={side === 'open' && bench.cursor?.armed ? bench.cursor : null}
              className="max-h-[38rem]"
              role="img"
              aria-label={`holes of ${layer.name}`}
              onPlace={(at, hit) => (hit ? bench.touch(hit.id) : bench.point(at))}
            />
          </div>
        )}
      </div>
      {panel ? (
        <ChoicePanel
          key={asked}
          panel={panel}
          choose={choose}
          close={() => (step ? setPanel(null) : leave())}
        />
      ) : (
        <KeyStrip keys={stripKeys(bench, ui)} />
      )}
      <input
        ref={camera}
        type="file"
        accept={ACCEPT}
        capture="environment"
        multiple
        className="sr-only"
        tabIndex={-1}
        aria-label="photos of this step"
        onChange={(e) => {
          const files = [...(e.currentTarget.files ?? [])];
          e.currentTarget.value = '';
          queue.add(files, path);
        }}
      />
    </dialog>
  );
}
