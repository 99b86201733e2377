import { useMemo } from 'react';
import type { CountFieldName } from '@zugluft/core/count/countFields';
import { blankCount } from '@zugluft/core/count/countSchema';
import { parseCount, type ParsedCount } from '@zugluft/core/count/parseCount';
import { recount } from '@zugluft/core/documents/recount';
import { isObject, type Json } from '@zugluft/core/record/plainJson';
import type { Draft } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { useLaboratory } from '../../documents/useLaboratory';

/** A word of a count that is chosen, not counted. */
export type CountChoice = 'chamber' | 'interface' | 'material';

/** The count of the open machine, as typed, and what follows from it. */
export interface CountFile {
  count: Json;
  parsed: ParsedCount;
  set: (name: CountFieldName | CountChoice, value: unknown) => void;
}

/** The count that stands in a machine's record; each change makes its record anew, except for what was measured since. */
export function useCount(): CountFile {
  const { draft, change } = useMachineFile();
  const { defaults } = useLaboratory();
  const kept = (draft as Json)['count'];
  const count = useMemo<Json>(() => (isObject(kept) ? kept : { ...blankCount() }), [kept]);
  const parsed = useMemo(() => parseCount(count, defaults), [count, defaults]);
  return {
    count,
    parsed,
    set: (name, value) =>
      change((d) => {
        const before = (d as Json)['count'];
        const { [name]: _, ...rest } = isObject(before) ? before : { ...blankCount() };
        const now = value === undefined ? rest : { ...rest, [name]: value };
        return recount(d as Json, now, defaults) as Draft;
      }, `count.${name}`),
  };
}
