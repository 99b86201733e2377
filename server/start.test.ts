import { readFileSync } from 'node:fs';
import { connect } from 'node:net';
import { join } from 'node:path';
import { startProgram } from './test-support/startProgram';
import { temporaryFolder } from './test-support/temporaryFolder';
import { testLibrary } from './test-support/testServer';

const EXAMPLE = JSON.parse(
  readFileSync(join(__dirname, '../examples/two-fan-shared-pipes.json'), 'utf8'),
);

const MAX_TRIES = 600;

/** What becomes of a connection to an address. */
const reach = (host: string, port: number) =>
  new Promise<string>((resolve) => {
    const socket = connect({ host, port });
    socket.once('connect', () => (socket.destroy(), resolve('connected')));
    socket.once('error', (cause: NodeJS.ErrnoException) => resolve(cause.code ?? cause.message));
  });

test('it listens on one loopback address alone, and describes anew what an older version described', async () => {
  const folder = temporaryFolder();
  const library = await testLibrary(folder);
  const { id } = await library.machines.create(EXAMPLE);
  await library.db.models.Machine.update(
    { describedBy: 0, fans: 9, searchText: '' },
    { where: { id } },
  );
  await library.close();

  const { child, address } = await startProgram(folder);
  try {
    const port = Number(new URL(address).port);
    expect(await reach('127.0.0.1', port)).toBe('connected');
    // any other address of this machine, as the whole of 127/8 is
    expect(await reach('127.0.0.2', port)).toBe('ECONNREFUSED');

    const fansListed = async () => {
      const answer = await fetch(`${address}/api/machines`);
      const { items } = (await answer.json()) as { items: { fans: number }[] };
      return items[0]?.fans;
    };
    // it is done beside the requests; given up before the test's own limit, so that the program is ended
    for (
      let tries = 0;
      tries < MAX_TRIES && (await fansListed()) !== EXAMPLE.fans.length;
      tries++
    ) {
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    expect(await fansListed()).toBe(EXAMPLE.fans.length);
    const found = await fetch(`${address}/api/machines?q=${EXAMPLE.identity.model.split(' ')[0]}`);
    expect(((await found.json()) as { items: { id: string }[] }).items).toMatchObject([{ id }]);
  } finally {
    child.kill('SIGKILL');
  }
});
