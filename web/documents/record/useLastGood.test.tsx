/** @jest-environment jsdom */
import 'fake-indexeddb/auto';
import { renderHook, waitFor } from '@testing-library/react';
import { exampleRecord } from '@zugluft/core/test-support/exampleRecord';
import { setAt } from '@zugluft/core/record/plainJson';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { useLastGood } from './useLastGood';

// the database copies what it keeps as a browser does
globalThis.structuredClone ??= (x: unknown) => JSON.parse(JSON.stringify(x));

const good = exampleRecord('two-fan-shared-pipes');
const emptied = setAt(good, ['finStacks', 0, 'depthMm'], undefined);

interface Now {
  complete: CaseRecord | null;
  keepable: CaseRecord | null;
}
const open = (id: string, first: Now) =>
  renderHook(({ complete, keepable }: Now) => useLastGood(id, complete, keepable), {
    initialProps: first,
  });

test('complete as it stands; refused in part, with what stood there before', () => {
  const { result, rerender } = open('a', { complete: good, keepable: good });
  expect(result.current).toBe(good);
  const other = setAt(good, ['shell', 'massKg'], 3);
  rerender({ complete: null, keepable: other });
  expect(result.current).toEqual(other);
});

test('a needed figure emptied: the last one stays, also after a reload, and for that machine alone', async () => {
  const first = open('b', { complete: good, keepable: good });
  first.rerender({ complete: null, keepable: emptied });
  expect(first.result.current).toBe(good);
  first.unmount();
  const again = open('b', { complete: null, keepable: emptied });
  await waitFor(() => expect(again.result.current).toEqual(good));
  // mended, what stands there holds
  const mended = setAt(good, ['finStacks', 0, 'depthMm'], 30);
  again.rerender({ complete: mended, keepable: mended });
  expect(again.result.current).toBe(mended);
  const other = open('c', { complete: null, keepable: emptied });
  await new Promise((resolve) => setTimeout(resolve, 0));
  expect(other.result.current).toBeNull();
});
