import {
  endBack,
  openAt,
  plugOne,
  putBackOne,
  waitingHoles,
  wrongBack,
} from '@zugluft/core/service/benchEdits';
import { editScrew } from '@zugluft/core/service/logEdits';
import type { BenchContext } from './benchContext';
import { keyOfBack } from './benchPlan';

/** What keys do on the way back. */
export function backActions({
  log,
  way,
  back,
  backIndex,
  letter,
  change,
  go,
  setLetter,
  say,
  sure,
  setSure,
}: BenchContext) {
  return {
    putBack(of: string) {
      setLetter(of);
      setSure(null);
      if (!back) return;
      const wrong = wrongBack(log, back, of);
      say(wrong ?? '');
      if (wrong === null) change((l) => putBackOne(l, back, of));
    },
    putAllBack() {
      if (!back) return;
      change((l) =>
        waitingHoles(l, back).reduce((x, hole) => editScrew(x, hole, { back: 'own' }), l),
      );
    },
    plug() {
      setSure(null);
      if (back) change((l) => plugOne(l, back));
    },
    /** The next screw of the last group is lost. */
    lost() {
      if (!back) return;
      const group = log.groups.find((g) => g.letter === letter)?.id;
      const hole = waitingHoles(log, back).find(
        (id) => log.screws.find((s) => s.id === id)?.group === group,
      );
      if (hole) change((l) => editScrew(l, hole, { back: 'lost' }));
    },
    endBackStep() {
      if (!back) return;
      const open = openAt(log, back);
      if ((open.holes.length || open.connectors.length) && sure !== keyOfBack(back)) {
        setSure(keyOfBack(back));
        return;
      }
      change((l) => endBack(l, back));
      const next = way[backIndex + 1];
      go(next ? keyOfBack(next) : 'end');
    },
  };
}
