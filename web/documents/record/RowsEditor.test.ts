import { pastedRows } from './RowsEditor';

test('pasted rows are read line by line, with tabs, semicolons or spaces, point or comma', () => {
  expect(pastedRows('5000\t0\t110\n5000;1,2;95\r\n\n 5000  2.1 60 ')).toEqual([
    [5000, 0, 110],
    [5000, 1.2, 95],
    [5000, 2.1, 60],
  ]);
});

test('what is no number stays, to be said at its field; lines beyond the bound are left', () => {
  expect(pastedRows('rpm flow\n1 2')[0]).toEqual(['rpm', 'flow']);
  expect(pastedRows('1 2\n'.repeat(500))).toHaveLength(200);
});
