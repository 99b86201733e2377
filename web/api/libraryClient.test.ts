import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { libraryClient } from './libraryClient';

const KEY = ['runs', 'm'];

/** A shelf whose answers are held until they are let go, each as it stood when it was asked for. */
function heldShelf() {
  const shelf: string[] = [];
  const waiting: (() => void)[] = [];
  let asked = 0;
  return {
    shelf,
    asked: () => asked,
    letGo: () => waiting.splice(0).forEach((go) => go()),
    read: ({ signal }: { signal: AbortSignal }) => {
      asked += 1;
      const then = [...shelf];
      return new Promise<string[]>((resolve, reject) => {
        waiting.push(() => resolve(then));
        signal.addEventListener('abort', () => reject(new Error('given up')));
      });
    },
  };
}

function shownBy(client: QueryClient, read: ReturnType<typeof heldShelf>['read']) {
  const observer = new QueryObserver<string[]>(client, {
    queryKey: KEY,
    queryFn: read,
    retry: false,
  });
  const stop = observer.subscribe(() => {});
  return { now: () => observer.getCurrentResult(), stop };
}

const settled = () => new Promise((done) => setImmediate(done));

let client: QueryClient;
beforeEach(() => (client = libraryClient()));
afterEach(() => client.clear());

test('what is written while the first answer is on its way is shown', async () => {
  const held = heldShelf();
  const seen = shownBy(client, held.read);
  held.shelf.push('a run');
  const told = client.invalidateQueries({ queryKey: ['runs'] });
  await settled();
  expect(held.asked()).toBe(2);
  held.letGo();
  await told;
  await settled();
  expect(seen.now()).toMatchObject({ data: ['a run'], isSuccess: true, fetchStatus: 'idle' });
  seen.stop();
});

test('the package alone would take the older answer for a fresh one', async () => {
  const plain = new QueryClient();
  const held = heldShelf();
  const seen = shownBy(plain, held.read);
  held.shelf.push('a run');
  const told = plain.invalidateQueries({ queryKey: KEY });
  held.letGo();
  await told;
  expect(seen.now()).toMatchObject({ data: [], isStale: true });
  expect(held.asked()).toBe(1);
  seen.stop();
  plain.clear();
});

test('a later answer on its way is given up too', async () => {
  const held = heldShelf();
  const seen = shownBy(client, held.read);
  held.letGo();
  await settled();
  expect(seen.now().data).toEqual([]);
  void client.refetchQueries({ queryKey: KEY });
  held.shelf.push('a run');
  const told = client.invalidateQueries({ queryKey: KEY });
  held.letGo();
  await told;
  expect(seen.now().data).toEqual(['a run']);
  seen.stop();
});

test('what a write has answered is not replaced by an older answer on its way', async () => {
  const held = heldShelf();
  const seen = shownBy(client, held.read);
  held.shelf.push('a photo');
  client.setQueryData<string[]>(KEY, (all = []) => [...all, 'a photo']);
  expect(seen.now().data).toEqual(['a photo']);
  held.letGo();
  await settled();
  expect(seen.now().data).toEqual(['a photo']);
  expect(held.asked()).toBe(2);
  client.setQueryData<string[]>(KEY, (all = []) => [...all, 'a second one']);
  await settled();
  expect(held.asked()).toBe(2);
  seen.stop();
});

test('what nobody looks at keeps its answer, and nothing is asked where it shall not be', async () => {
  const held = heldShelf();
  const kept = client.fetchQuery({ queryKey: KEY, queryFn: held.read, retry: false });
  await client.invalidateQueries({ queryKey: KEY });
  held.letGo();
  expect(await kept).toEqual([]);
  expect(held.asked()).toBe(1);
  const other = heldShelf();
  const seen = new QueryObserver(client, { queryKey: ['other'], queryFn: other.read });
  const stop = seen.subscribe(() => {});
  await client.invalidateQueries({ queryKey: ['other'], refetchType: 'none' });
  other.letGo();
  await settled();
  expect(other.asked()).toBe(1);
  expect(seen.getCurrentResult().data).toEqual([]);
  stop();
});
