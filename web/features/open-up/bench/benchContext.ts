import type { Place } from '@zugluft/core/service/holeAt';
import type { OpenUpLog } from '../../../api/openUp';
import type { ChangeLog } from '../OpenUpLog';
import type { BenchPlan } from './benchPlan';
import type { BenchSide } from './benchPlace';

/** Where the next screw is logged; one that nobody pointed at is only counted. */
export type Cursor = Place & { armed: boolean };

/** What the actions at the bench work with. */
export interface BenchContext extends BenchPlan {
  log: OpenUpLog;
  change: ChangeLog;
  side: BenchSide;
  /** Group of the last key. */
  letter: string;
  setLetter: (letter: string) => void;
  cursor: Cursor | null;
  setCursor: (make: (now: Cursor | null) => Cursor | null) => void;
  say: (words: string) => void;
  /** Goes to another step. */
  go: (id: string | null) => void;
  /** Step of the way back whose open things were shown: Enter once more leaves them. */
  sure: string | null;
  setSure: (key: string | null) => void;
}
