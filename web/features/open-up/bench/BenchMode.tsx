import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { openAt } from '@zugluft/core/service/benchEdits';
import { ACCEPT } from '../../../documents/photos/AddButton';
import { useAttachments } from '../../../documents/photos/AttachmentsProvider';
import { useMachineFile } from '../../../documents/record/MachineFile';
import { machineName } from '../../../documents/record/machineName';
import { LogSavingWords, LogTrouble } from '../LogStatus';
import { useOpenUp } from '../OpenUpLog';
import { ScrewMapView } from '../ScrewMapView';
import { Kbd } from '../../../kit/Kbd';
import { BackView } from './BackView';
import { benchPanel, type PanelName } from './benchPanels';
import { ChoicePanel } from './ChoicePanel';
import { EndView } from './EndView';
import { KeyStrip, type StripKey } from './KeyStrip';
import { OpenView } from './OpenView';
import { groupKeys, letterOf } from './groupKeys';
import { useBench } from './useBench';

const STEP_MM = 5;

/**
 * Bench mode: the whole screen, one step at a time, worked by the keypad with one hand or by touch. Everything is kept in this
 * browser at once.
 */
export function BenchMode() {
  const { machine, draft } = useMachineFile();
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
  };
  const panel = asked && benchPanel(asked, bench, ui);
  const choose = (run: () => void) => {
    setPanel(null);
    run();
  };

  const openKeys: StripKey[] = [
    ...groupKeys(log, 'open').map(({ key, words, letter }) => ({
      key,
      words,
      run: () => bench.take(letter),
    })),
    { key: '+', words: `one more ${bench.letter}`, run: () => bench.take(bench.letter) },
    { key: '0', words: 'was missing', run: bench.missing, off: !bench.canMiss },
    { key: '*', words: 'connector', run: () => setPanel('connector') },
    { key: '/', words: 'more', run: () => setPanel('more') },
    { key: '.', words: step?.runningSince ? 'pause' : 'clock', run: bench.clock },
    { key: '-', words: 'step before', run: bench.before, off: bench.index < 1 },
    {
      key: 'Enter',
      words: bench.unread.length ? 'cautions read' : 'done, next',
      run: () => (bench.unread.length ? bench.read() : end('done')),
      main: true,
    },
  ];
  const backKeys: StripKey[] = bench.back
    ? [
        ...groupKeys(log, bench.back).map(({ key, words, letter }) => ({
          key,
          words,
          run: () => bench.putBack(letter),
        })),
        {
          key: '+',
          words: `one more ${bench.letter}`,
          run: () => bench.putBack(bench.letter),
          off: !bench.back.screws.length,
        },
        {
          key: 'a',
          words: 'all of this step',
          run: bench.putAllBack,
          off: !bench.back.screws.length,
        },
        { key: '0', words: 'one is lost', run: bench.lost, off: !bench.back.screws.length },
        { key: '*', words: 'plug in', run: bench.plug, off: !bench.back.connectors.length },
        { key: '-', words: 'before', run: bench.before, off: bench.backIndex < 1 },
        { key: 'Enter', words: 'done, next', run: bench.endBackStep, main: true },
      ]
    : [
        { key: '-', words: 'before', run: bench.before, off: bench.backIndex < 1 },
        { key: 'Enter', words: 'leave the bench', run: leave, main: true },
      ];

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
      else if (key === 'Escape' && step) setPanel(null);
      else if (key === 'Escape') leave();
      return choice !== undefined || key === 'Escape';
    }
    const run = {
      Escape: leave,
      Backspace: bench.undo,
      v: turn,
      ...(side === 'open'
        ? {
            ArrowLeft: () => bench.nudge(-STEP_MM, 0),
            ArrowRight: () => bench.nudge(STEP_MM, 0),
            ArrowUp: () => bench.nudge(0, -STEP_MM),
            ArrowDown: () => bench.nudge(0, STEP_MM),
            ',': bench.clock,
            c: () => setPanel('count'),
            p: () => setPanel('part'),
            f: ui.photo,
            n: () => setPanel('note'),
            t: bench.stamp,
            s: () => end('skipped'),
            w: () => end('went-wrong'),
            e: () => setPanel('earlier'),
            l: () => setPanel('layer'),
            b: () => setPanel('posture'),
            r: () => setPanel('strip'),
            a: bench.takeAllExpected,
          }
        : {}),
      ...Object.fromEntries((side === 'open' ? openKeys : backKeys).map((k) => [k.key, k.run])),
    }[key.length === 1 ? key.toLowerCase() : key];
    if (/^[1-9]$/.test(key)) {
      if (side === 'open') bench.take(letterOf(key));
      else bench.putBack(letterOf(key));
      return true;
    }
    run?.();
    return run !== undefined;
  };
  const latest = useRef(onKey);
  useEffect(() => {
    latest.current = onKey;
  });
  useEffect(() => {
    const listen = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      // left already: the key is the page's, and must not log a screw
      if (!dialog.current?.open) return;
      const typing = e.target instanceof HTMLInputElement;
      if (typing && e.key !== 'Escape') return;
      // whoever went to a button by Tab means the button
      if (e.key === 'Enter' && e.target instanceof HTMLButtonElement) return;
      // another dialog lies over the bench
      if (document.querySelectorAll('dialog[open]').length > 1) return;
      if (!latest.current(e.key)) return;
      e.preventDefault();
      e.stopPropagation();
    };
    window.addEventListener('keydown', listen, true);
    return () => window.removeEventListener('keydown', listen, true);
  }, []);

  const { name, variant } = machineName(draft);
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
      <header className="flex flex-wrap items-center gap-x-5 gap-y-1 px-4 py-2 border-b border-rule text-base">
        <span className="font-semibold">{[name, variant].filter(Boolean).join(', ')}</span>
        <span className="text-quiet">{side === 'open' ? 'opening' : 'way back'}</span>
        <span className="grow" />
        <LogSavingWords />
        <button
          type="button"
          className="cursor-pointer text-quiet hover:text-ink disabled:opacity-50"
          disabled={!bench.canUndo}
          onClick={bench.undo}
        >
          undo <Kbd>Backspace</Kbd>
        </button>
        <button type="button" className="cursor-pointer text-quiet hover:text-ink" onClick={turn}>
          {side === 'open' ? 'way back' : 'opening'} <Kbd>v</Kbd>
        </button>
        <button type="button" className="cursor-pointer text-quiet hover:text-ink" onClick={leave}>
          leave <Kbd>Esc</Kbd>
        </button>
      </header>
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
        <KeyStrip keys={side === 'open' ? openKeys : backKeys} />
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
