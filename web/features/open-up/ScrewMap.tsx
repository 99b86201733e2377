import { useState, type KeyboardEvent } from 'react';
import { missingAt } from '@zugluft/core/service/benchEdits';
import { holeAt } from '@zugluft/core/service/holeAt';
import { addScrew, editScrew, removeScrew, turnScrew } from '@zugluft/core/service/logEdits';
import type { OpenUpLog } from '../../api/openUp';
import { Kbd } from '../../kit/Kbd';
import { arrowStep } from '../../kit/plan/arrowStep';
import { HoleDetails } from './HoleDetails';
import type { ChangeLog } from './OpenUpLog';
import { ScrewMapView, sizeOf } from './ScrewMapView';

const STEP_MM = 5;

/**
 * The screw map at the desk. A cursor is moved with the arrow keys, Enter logs a screw there; the same is done by click. Letters
 * choose the group.
 */
export function ScrewMap({
  log,
  layer,
  stepId,
  order,
  change,
}: {
  log: OpenUpLog;
  layer: OpenUpLog['layers'][number];
  stepId: string | undefined;
  /** Order of tightening to show, by hole. */
  order: ReadonlyMap<string, number>;
  change: ChangeLog;
}) {
  const { w, h } = sizeOf(layer);
  const [at, setAt] = useState({ xMm: 10, yMm: 10 });
  const [letter, setLetter] = useState('A');
  const [focused, setFocused] = useState(false);
  const [said, setSaid] = useState('');
  const under = holeAt(log, layer.id, at);
  const unplaced = log.screws.find((s) => s.layer === layer.id && s.xMm === undefined);
  const waiting = log.screws.filter((s) => s.layer === layer.id && s.xMm === undefined).length;
  const letterOf = (group: string | undefined) =>
    log.groups.find((g) => g.id === group)?.letter ?? '?';
  /** A screw that was only counted gets its place before another hole is made. */
  const logAt = (place: { xMm: number; yMm: number }) =>
    change((l) => {
      const counted = l.screws.find(
        (s) => s.layer === layer.id && s.xMm === undefined && letterOf(s.group) === letter,
      );
      return counted
        ? editScrew(l, counted.id, { xMm: Math.round(place.xMm), yMm: Math.round(place.yMm) })
        : addScrew(l, layer.id, letter, place, stepId);
    });
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    const move = arrowStep(e, STEP_MM, 1);
    if (move) {
      setAt({
        xMm: Math.min(w, Math.max(0, at.xMm + move[0])),
        yMm: Math.min(h, Math.max(0, at.yMm + move[1])),
      });
    } else if (e.key === 'Enter') {
      if (under) change((l) => turnScrew(l, under.id));
      else logAt(at);
    } else if (/^[a-z]$/i.test(e.key)) setLetter(e.key.toUpperCase());
    else if (e.key === '0' && !under) {
      setSaid('');
      change((l) => {
        const next = addScrew(l, layer.id, letter, at, stepId);
        const added = next.screws.at(-1)!.id;
        return editScrew(next, added, { onArrival: 'missing', out: false });
      });
    } else if (e.key === '0' && under) {
      const { refused } = missingAt(log, under);
      setSaid(refused ?? '');
      if (refused === null) change((l) => missingAt(l, under).log);
    } else if (e.key === '-' && under?.out) {
      change((l) => editScrew(l, under.id, { back: under.back === 'lost' ? undefined : 'lost' }));
    } else if ((e.key === 'Delete' || e.key === 'Backspace') && under) {
      change((l) => removeScrew(l, under.id));
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div>
      <ScrewMapView
        log={log}
        layer={layer}
        order={order}
        cursor={focused ? at : null}
        className="max-h-[20rem] focus:outline-2 outline-air"
        tabIndex={0}
        role="application"
        aria-label={`screw map of ${layer.name}: arrows move the cursor, Enter logs or turns a screw`}
        onKeyDown={onKeyDown}
        onPlace={(place, hit) => {
          setAt(hit ? { xMm: hit.xMm!, yMm: hit.yMm! } : place);
          if (hit) change((l) => turnScrew(l, hit.id));
          else logAt(place);
        }}
        onFocus={() => setFocused(true)}
        onBlur={() => setFocused(false)}
      />
      <p
        className="text-small text-quiet flex flex-wrap gap-x-3 gap-y-1 items-center"
        aria-live="polite"
      >
        <span>
          group{' '}
          <span className="figure text-ink" data-testid="group-letter">
            {letter}
          </span>{' '}
          <Kbd>A</Kbd>–<Kbd>Z</Kbd>
        </span>
        <span>
          log, out, back <Kbd>Enter</Kbd>
        </span>
        <span>
          hole was empty <Kbd>0</Kbd>
        </span>
        <span>
          lost <Kbd>-</Kbd>
        </span>
        <span>
          remove <Kbd>Del</Kbd>
        </span>
        {said && <span className="text-heat">{said}</span>}
        {unplaced && (
          <span className="text-ink">
            {waiting} counted, not on the map yet: Enter or click places {letterOf(unplaced.group)}
          </span>
        )}
      </p>
      {under && <HoleDetails log={log} screw={under} change={change} />}
    </div>
  );
}
