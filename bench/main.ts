import { readFileSync } from 'node:fs';
import { estimate } from '@zugluft/core/estimate';
import { completeRecord } from '@zugluft/core/test-support/exampleRecord';
const two = completeRecord(JSON.parse(readFileSync('examples/two-fan-shared-pipes.json', 'utf8')));
for (let i = 0; i < 200; i++) estimate(two, { envelopes: false });
const t = Date.now();
for (let i = 0; i < 200; i++) estimate(two, { envelopes: false });
console.log((Date.now() - t) / 200);
