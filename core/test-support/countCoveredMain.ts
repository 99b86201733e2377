import { readFileSync } from 'node:fs';
import { parseRecord } from '../record/parseRecord';
import { countCovered } from './countCovered';

// a process of its own: the test runner's sandbox would take four times as long
const [file, machines, seed, runs, badShare] = process.argv.slice(2);
const { record } = parseRecord(JSON.parse(readFileSync(file!, 'utf8')));
const bench = { runs: Number(runs), badShare: Number(badShare) };
process.stdout.write(JSON.stringify(countCovered(record!, Number(machines), Number(seed), bench)));
