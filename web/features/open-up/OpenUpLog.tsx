import { useCommands } from '../../documents/commands';
import { createContext, useContext, useState, type ReactNode } from 'react';
import { figureValue, type Figure } from '@zugluft/core/record/figure';
import type { HouseRules } from '@zugluft/core/service/houseRules';
import { withLayer } from '@zugluft/core/service/logEdits';
import { firstFault } from '@zugluft/core/service/openUpLog';
import type { Rubric } from '@zugluft/core/service/serviceScore';
import type { OpenUpLog } from '../../api/openUp';
import { toast } from 'sonner';
import { getAt } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import type { Keeper, KeepView } from '../../documents/keeper';
import type { UndoStep } from '../../documents/undoSteps';
import { useKept } from '../../documents/useDocument';
import { usePageUndo } from '../../documents/pageUndo';
import { useLabSettings } from '../../documents/useLaboratory';

export type ChangeLog = (make: (log: OpenUpLog) => OpenUpLog) => void;

interface OpenUpValue {
  /** The log with at least one layer to draw on. */
  log: OpenUpLog;
  change: ChangeLog;
  /** Takes the last change back and says which it was. */
  undo: () => UndoStep | null;
  canUndo: boolean;
  /** Where it is kept, and what to choose in a conflict. */
  kept: KeepView<OpenUpLog> & { keeper: Keeper<OpenUpLog> };
  /** Why the last change was not taken; null where it was. */
  refused: string | null;
  /** The shell's outline, or a usual one. */
  outline: { widthMm: number; depthMm: number };
  rules: HouseRules;
  /** The lab's rules have been asked for; before that they are the built-in ones. */
  rulesKnown: boolean;
  rubric: Rubric;
}

const Context = createContext<OpenUpValue | null>(null);

export function useOpenUp(): OpenUpValue {
  const value = useContext(Context);
  if (!value) throw new Error('used outside the opening');
  return value;
}

/** What was taken back is said; where it was the log shows. */
function say(done: string, step: UndoStep | null): void {
  if (step) toast(`${done}: ${step.label}`, { id: 'undo' });
}

const USUAL = { widthMm: 355, depthMm: 245 };
const MAX_MM = 800;

/** One log with its saving and undo, for the desk's views and the bench alike. */
export function OpenUpLogProvider({
  keeper,
  children,
}: {
  keeper: Keeper<OpenUpLog>;
  children: ReactNode;
}) {
  const { draft } = useMachineFile();
  const kept = useKept(keeper);
  const { value: log } = kept;
  const undo = () => {
    const step = keeper.undo();
    say('Undone', step);
    return step;
  };
  const redo = () => say('Done again', keeper.redo());
  const { settings, loading } = useLabSettings();
  const [refused, setRefused] = useState<string | null>(null);
  usePageUndo({
    undo: kept.undo?.label ?? null,
    redo: kept.redo?.label ?? null,
    isAlone: true,
  });
  useCommands({ undo, redo }, true);
  const size = (field: 'widthMm' | 'depthMm') => {
    const value = figureValue(getAt(draft, ['shell', field]) as Figure | undefined);
    return typeof value === 'number' && value > 0 && value <= MAX_MM ? value : USUAL[field];
  };
  const outline = { widthMm: size('widthMm'), depthMm: size('depthMm') };
  return (
    <Context.Provider
      value={{
        log: withLayer(log, outline),
        change: (make) =>
          keeper.change((l) => {
            const next = make(withLayer(l, outline));
            // what the format does not take would stop everything after it from being saved
            const fault = firstFault(next);
            setRefused(fault);
            return fault === null ? next : l;
          }),
        refused,
        undo,
        canUndo: kept.undo !== null,
        kept,
        outline,
        rules: settings['house-rules'],
        rulesKnown: !loading,
        rubric: settings.rubric,
      }}
    >
      {children}
    </Context.Provider>
  );
}
