import { parseRecord } from '@zugluft/core/record/parseRecord';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { soak } from './soak';
import { tallyTable } from './tally';

const MINUTES = Number(process.argv[2] ?? 10);
const SEED = Number(process.argv[3] ?? 1);
const CLIENTS = 50;

const folder = mkdtempSync(join(tmpdir(), 'zugluft-soak-'));
const { record } = parseRecord(
  JSON.parse(readFileSync('examples/two-fan-shared-pipes.json', 'utf8')),
);
const until = Date.now() + MINUTES * 60_000;
const tally = await soak({
  folder,
  record: record!,
  seed: SEED,
  clients: CLIENTS,
  goesOn: () => Date.now() < until,
  killAfter: [100, 3000],
  restores: 10,
  told: (words) => console.error(words),
});
rmSync(folder, { recursive: true, force: true });
const page = `# Soak

Made by \`npm run soak\`: ${CLIENTS} clients of another process for ${MINUTES} ${MINUTES === 1 ? 'minute' : 'minutes'}, seed ${SEED}, on ${cpus().length} cores that clients and program share.
The program is killed at random moments, as by a power cut; after each, all that it had acknowledged is looked for. What a client
does is drawn by chance; ten restores are killed at the end, after each of which there is one library or the other.

${tallyTable(tally)}
`;
writeFileSync('docs/soak.md', page);
console.log(page);
for (const words of [...tally.wrong, ...tally.lost].slice(0, 20)) console.error(words);
process.exitCode = tally.wrong.length || tally.lost.length ? 1 : 0;
