import { createOneByOne } from './oneByOne';

test('work is done one after the other, one that fails holds up none, and what nobody waits for any more is left out', async () => {
  const inLine = createOneByOne();
  const done: string[] = [];
  let running = 0;
  const work = (name: string) => async () => {
    expect(++running).toBe(1);
    await new Promise((resolve) => setTimeout(resolve, 5));
    running--;
    done.push(name);
    if (name === 'fails') throw new Error('it failed');
    return name;
  };
  const [gone, there] = [new AbortController(), new AbortController()];
  const first = inLine(work('first'));
  const failing = inLine(work('fails'));
  const left = inLine(work('left'), gone.signal);
  const last = inLine(work('last'), there.signal);
  gone.abort();
  await expect(first).resolves.toBe('first');
  await expect(failing).rejects.toThrow('it failed');
  await expect(left).rejects.toMatchObject({ name: 'AbortError' });
  await expect(last).resolves.toBe('last');
  expect(done).toEqual(['first', 'fails', 'last']);
});
