import { basename } from 'node:path';
import { capsOf } from '@zugluft/core/case/laboratory';
import { openCase } from '@zugluft/core/case/openCase';
import { comparisonDocument } from '@zugluft/core/compare/comparisonDocument';
import { compareMachines } from '@zugluft/core/compare/compareMachines';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { answered, type Answered } from './answered';
import { BadInput } from './badInput';
import { capsOption, drawOptions, MOST_CAPS } from './options';
import { parsed } from './parsed';
import { recordOfFile } from './recordFile';

const USAGE =
  'usage: npm run --silent compare -- RECORD.json RECORD.json … [--caps 32,36,40] [--draws 400] [--seed 1]';
const OPTIONS = {
  caps: { type: 'string' },
  draws: { type: 'string' },
  seed: { type: 'string' },
} as const;
const MOST_MACHINES = 200;

/**
 * The compare command: machines side by side, and how likely one is better than another.
 *
 * @param argv words after the command's name
 * @param tell told of progress
 * @returns the JSON document for stdout, and the exit code
 */
export const run = (
  argv: readonly string[],
  tell: (line: string) => void = () => undefined,
): Promise<Answered> => answered(() => compare(argv, tell));

function compare(argv: readonly string[], tell: (line: string) => void): object {
  const { values: v, positionals: files } = parsed(argv, OPTIONS, USAGE, tell);
  if (files.length === 0 || files.length > MOST_MACHINES) {
    tell(USAGE);
    throw new BadInput('', `needs 1 to ${MOST_MACHINES} record files`);
  }
  const drawn = drawOptions(v);
  const caps =
    v.caps === undefined
      ? capsOf().filter((c) => typeof c === 'number')
      : [...new Set(capsOption('--caps', v.caps, MOST_CAPS))];
  const machines = files.map((file) => {
    const record = recordOf(file, files.length);
    const request = { record };
    openCase(request);
    return { name: nameOf(record, file), request };
  });
  const { machines: compared, better } = compareMachines(machines, {
    caps,
    ...drawn,
    progress: (done, of) => tell(`${done} of ${of} machines`),
  });
  return comparisonDocument({ machines: compared, better });
}

/** A record's file; where there are several, what is wrong says in which. */
function recordOf(file: string, of: number): CaseRecord {
  try {
    return recordOfFile(file);
  } catch (cause) {
    if (!(cause instanceof BadInput) || of === 1) throw cause;
    throw new BadInput(cause.path, `${file}: ${cause.message}`);
  }
}

/** Maker, model and variant, else the file's own name. */
function nameOf({ identity }: CaseRecord, file: string): string {
  const words = [identity?.maker, identity?.model, identity?.variant].filter(
    (x): x is string => typeof x === 'string' && x.trim() !== '',
  );
  return words.join(' ') || basename(file).replace(/\.[^.]+$/, '');
}
