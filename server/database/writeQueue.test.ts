import { QueryTypes } from 'sequelize';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { openDatabase, type Database } from './openDatabase';
import { firstPrepared, runPrepared } from './prepared';
import type { WriteOptions } from './writeQueue';

let db: Database;
beforeEach(async () => {
  db = await openDatabase(temporaryFolder());
  await db.sequelize.query('CREATE TABLE said (word TEXT PRIMARY KEY)');
});
afterEach(() => db.close());

const together = { together: true };
const say = (word: string, options: WriteOptions = together) =>
  db.write(async (transaction) => {
    await db.sequelize.query('INSERT INTO said VALUES (?)', { replacements: [word], transaction });
    db.touch(transaction, word, 'figures');
    return word;
  }, options);
const said = async () =>
  (
    await db.sequelize.query<{ word: string }>('SELECT word FROM said ORDER BY rowid', {
      type: QueryTypes.SELECT,
    })
  ).map((r) => r.word);

test('writes that wait together are kept in their order by fewer transactions, each with its own answer', async () => {
  const told: string[][] = [];
  db.onTouched(async (touched) => void told.push([...touched.keys()]));
  const words = Array.from({ length: 20 }, (_, k) => `w${k}`);
  expect(await Promise.all(words.map((w) => say(w)))).toEqual(words);
  expect(await said()).toEqual(words);
  expect(told.flat()).toEqual(words);
  expect(told.length).toBeLessThan(words.length);
  expect(db.queued()).toBe(0);
});

test('one that fails takes back what it did, and nothing of its neighbours, wherever it stands among them', async () => {
  const told: string[] = [];
  db.onTouched(async (touched) => void told.push(...touched.keys()));
  const failing = (word: string) =>
    db.write(async (transaction) => {
      await db.sequelize.query('INSERT INTO said VALUES (?)', {
        replacements: [word],
        transaction,
      });
      db.touch(transaction, word, 'words');
      throw new Error(`not ${word}`);
    }, together);
  const results = await Promise.allSettled([
    failing('a'),
    say('b'),
    failing('c'),
    say('d'),
    say('b'),
    failing('e'),
    say('f'),
  ]);
  expect(results.map((r) => r.status)).toEqual([
    'rejected',
    'fulfilled',
    'rejected',
    'fulfilled',
    'rejected',
    'rejected',
    'fulfilled',
  ]);
  expect((results[2] as PromiseRejectedResult).reason.message).toBe('not c');
  expect(await said()).toEqual(['b', 'd', 'f']);
  expect(told).toEqual(['b', 'd', 'f']);
  expect(db.queued()).toBe(0);
});

test('nobody is told before it is kept, and a listener has been told before the writer goes on', async () => {
  const order: string[] = [];
  db.onTouched(async (touched) => {
    // another connection sees only what is committed
    const there = await said();
    for (const word of touched.keys()) expect(there).toContain(word);
    order.push(`listed ${[...touched.keys()].join()}`);
  });
  await Promise.all(
    ['x', 'y', 'z'].map((w) => say(w).then((word) => order.push(`answered ${word}`))),
  );
  const at = (text: RegExp) => order.findIndex((o) => text.test(o));
  for (const w of ['x', 'y', 'z']) {
    expect(at(new RegExp(`listed.*${w}`))).toBeLessThan(at(new RegExp(`answered ${w}`)));
  }
});

test('a commit that fails fails the one whose fault it is, and leaves the library open for the next', async () => {
  await db.sequelize.query('CREATE TABLE owner (word TEXT PRIMARY KEY)');
  await db.sequelize.query(
    'CREATE TABLE owned (word TEXT REFERENCES owner(word) DEFERRABLE INITIALLY DEFERRED)',
  );
  const results = await Promise.allSettled([
    say('a'),
    db.write(
      (transaction) => db.sequelize.query("INSERT INTO owned VALUES ('nobody')", { transaction }),
      together,
    ),
    say('b'),
  ]);
  expect(results.map((r) => r.status)).toEqual(['fulfilled', 'rejected', 'fulfilled']);
  expect(await said()).toEqual(['a', 'b']);
  // and the next one is kept as ever
  expect(await say('c')).toBe('c');
  expect(await said()).toEqual(['a', 'b', 'c']);
});

test('what may not run beside others does not, and keeps its place', async () => {
  let under = 0;
  const told: string[][] = [];
  db.onTouched(async (touched) => void told.push([...touched.keys()]));
  const watched = (word: string, options: WriteOptions) =>
    db.write(async (transaction) => {
      under++;
      await db.sequelize.query('INSERT INTO said VALUES (?)', {
        replacements: [word],
        transaction,
      });
      db.touch(transaction, word, 'figures');
      const beside = under;
      under--;
      return beside;
    }, options);
  const [, ...beside] = await Promise.all([
    // begins at once, before the others are there
    watched('first', together),
    watched('a', together),
    watched('b', together),
    watched('alone', {}),
    watched('c', together),
    watched('d', together),
  ]);
  expect(beside[2]).toBe(1);
  expect(Math.max(...beside)).toBeGreaterThan(1);
  expect(told).toEqual([['first'], ['a', 'b'], ['alone'], ['c', 'd']]);
  expect(await said()).toEqual(['first', 'a', 'b', 'alone', 'c', 'd']);
});

test('a listener that fails is told to the writer, who is not written twice', async () => {
  let tries = 0;
  db.onTouched(async () => {
    throw new Error('not listed');
  });
  const counted = () =>
    db.write(async (transaction) => {
      tries++;
      db.touch(transaction, 'x', 'figures');
    }, together);
  const results = await Promise.allSettled([counted(), counted()]);
  expect(results.map((r) => r.status)).toEqual(['rejected', 'rejected']);
  expect(tries).toBe(2);
  expect(db.queued()).toBe(0);
});

test('after the library is closed a write is refused, not waited for', async () => {
  const other = await openDatabase(temporaryFolder());
  await other.close();
  await expect(other.write(async () => 1)).rejects.toThrow();
  expect(other.queued()).toBe(0);
});

test('a statement that cannot be prepared fails its own write, again each time it is tried, and keeps no other waiting', async () => {
  const wrong = () =>
    db.write((transaction) => runPrepared(transaction, 'INSERT INTO nowhere VALUES (1)'));
  await expect(wrong()).rejects.toThrow(/no such table/);
  await expect(wrong()).rejects.toThrow(/no such table/);
  // prepared once there is what it needs
  await db.sequelize.query('CREATE TABLE nowhere (x INTEGER)');
  await expect(wrong()).resolves.toBe(1);
  await say('after');
  expect(await said()).toEqual(['after']);
});

test('a prepared statement tells its row, how many it changed, and what it hurt', async () => {
  const insert = (word: string) =>
    db.write((transaction) =>
      runPrepared(transaction, 'INSERT INTO said VALUES ($word)', { word }),
    );
  expect(await insert('once')).toBe(1);
  await expect(insert('once')).rejects.toThrow(/UNIQUE/);
  const find = (word: string) =>
    db.write((transaction) =>
      firstPrepared<{ word: string }>(transaction, 'SELECT word FROM said WHERE word = $word', {
        word,
      }),
    );
  expect(await find('once')).toEqual({ word: 'once' });
  expect(await find('never')).toBeUndefined();
});
