import { latestOnly } from './latestOnly';

const later = () => new Promise<void>((resolve) => setTimeout(resolve, 1));

test('one at a time; of those that wait only the newest runs', async () => {
  const ran: number[] = [];
  let busy = 0;
  const submit = latestOnly();
  const job = (n: number) => async () => {
    expect(++busy).toBe(1);
    await later();
    ran.push(n);
    busy--;
  };
  for (let n = 1; n <= 5; n++) submit(job(n));
  for (let i = 0; i < 10; i++) await later();
  expect(ran).toEqual([1, 5]);
});

test('a job that fails does not stop the next', async () => {
  const ran: string[] = [];
  const submit = latestOnly();
  const failing = async () => {
    await later();
    ran.push('failing');
    throw new Error('no');
  };
  submit(() => failing().catch(() => undefined));
  submit(async () => {
    ran.push('next');
  });
  for (let i = 0; i < 10; i++) await later();
  expect(ran).toEqual(['failing', 'next']);
});
