import { comesFirst } from './comesFirst';

test('who rests goes on when nothing that comes first is under way, not before', async () => {
  const { run, rest } = comesFirst();
  const log: string[] = [];
  const end: (() => void)[] = [];
  const work = (name: string) => () =>
    new Promise<void>((resolve) => {
      log.push(`${name} begins`);
      end.push(() => {
        log.push(`${name} ends`);
        resolve();
      });
    });
  const soon = () => new Promise((resolve) => setTimeout(resolve, 5));
  await rest();
  run(work('a'));
  const rested = rest().then(() => void log.push('goes on'));
  await soon();
  // a newer one in place of the first, which gives up
  run(work('b'));
  end[0]!();
  await soon();
  expect(log).toEqual(['a begins', 'b begins', 'a ends']);
  end[1]!();
  await rested;
  expect(log.slice(3)).toEqual(['b ends', 'goes on']);
});
