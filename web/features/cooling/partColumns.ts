import type { PartList } from '../../documents/record/draft';
import { columnsOf, type Column } from '../../documents/record/columns';

export interface PartKind {
  list: PartList;
  tab: string;
  word: string;
  empty: string;
  columns: Column[];
}

/** What is recorded of each kind of part, in the order in which reviewers write it down. */
export const PART_KINDS: readonly PartKind[] = [
  {
    list: 'dies',
    tab: 'Dies',
    word: 'die',
    empty: 'No die yet. Add the CPU first, then the GPU if there is one.',
    columns: columnsOf(
      'dies',
      ['role', 'w-20'],
      ['widthMm', 'w-20'],
      ['lengthMm', 'w-20'],
      ['maxJunctionC', 'w-20'],
      ['sensor', 'w-24', 'hotspot?'],
      ['interface.kind', 'w-36', 'paste?'],
      ['interface.conductivityWmK', 'w-32'],
      ['interface.bondLineUm', 'w-24'],
      ['interface.ageYears', 'w-20'],
    ),
  },
  {
    list: 'plates',
    tab: 'Plates',
    word: 'plate',
    empty: 'No plate or chamber yet. Add what lies on the dies.',
    columns: columnsOf(
      'plates',
      ['kind', 'w-36'],
      ['dies', 'w-32'],
      ['widthMm', 'w-20'],
      ['lengthMm', 'w-20'],
      ['thicknessMm', 'w-24'],
      {
        kind: 'note',
        header: 'covers',
        field: 'covers',
        width: 'w-40',
        render: (p) => (Array.isArray(p['covers']) ? (p['covers'] as string[]).join(', ') : ''),
      },
    ),
  },
  {
    list: 'heatPipes',
    tab: 'Heat pipes',
    word: 'heat pipe',
    empty: 'No heat pipe yet. A machine with a vapor chamber may have none.',
    columns: columnsOf(
      'heatPipes',
      ['count', 'w-16'],
      ['diameterMm', 'w-24'],
      ['flattenedMm', 'w-28'],
      ['lengthMm', 'w-20'],
      ['wick', 'w-32', 'sintered?'],
      ['tiltDeg', 'w-16'],
      ['bends', 'w-16'],
      {
        kind: 'note',
        header: 'passes',
        field: 'along',
        width: 'w-52',
        render: (p) =>
          Array.isArray(p['along'])
            ? (p['along'] as { part: string }[]).map((a) => a.part).join(' · ')
            : '',
      },
    ),
  },
  {
    list: 'finStacks',
    tab: 'Fin stacks',
    word: 'fin stack',
    empty: 'No fin stack yet. Add one for each block of fins that a fan blows through.',
    columns: columnsOf(
      'finStacks',
      ['widthMm', 'w-20'],
      ['heightMm', 'w-20'],
      ['depthMm', 'w-20'],
      ['finCount', 'w-16'],
      ['finThicknessMm', 'w-16'],
      ['material', 'w-28', 'copper?'],
      ['blockedShare', 'w-20'],
      ['lintShare', 'w-16'],
      ['fans', 'w-32'],
      ['plates', 'w-28'],
    ),
  },
  {
    list: 'fans',
    tab: 'Fans',
    word: 'fan',
    empty: 'No fan yet. Measure the impeller, not the housing.',
    columns: columnsOf(
      'fans',
      ['impellerDiameterMm', 'w-24'],
      ['bladeHeightMm', 'w-28'],
      ['minRpm', 'w-28'],
      ['maxRpm', 'w-28'],
      ['control', 'w-24', 'shared?'],
    ),
  },
  {
    list: 'vents',
    tab: 'Vents',
    word: 'vent',
    empty:
      'No vent recorded: openings of usual size are assumed. Add them where they are smaller or covered.',
    columns: columnsOf(
      'vents',
      ['flow', 'w-24'],
      ['side', 'w-20', 'usual'],
      ['widthMm', 'w-16'],
      ['lengthMm', 'w-16'],
      ['openShare', 'w-28'],
      ['blockedShare', 'w-20'],
      ['mesh', 'w-12'],
      ['fans', 'w-28'],
      ['finStacks', 'w-28'],
    ),
  },
  {
    list: 'strips',
    tab: 'Strips',
    word: 'strip',
    empty:
      'No strip. Record each strip before anything is taken off: what it covers, and what it is for.',
    columns: columnsOf(
      'strips',
      ['kind', 'w-28'],
      { kind: 'ref', header: 'at', field: 'at', of: ['finStacks', 'vents'], width: 'w-36' },
      ['coversShare', 'w-20'],
      ['purpose', 'w-32', 'unknown?'],
      ['state', 'w-28', 'present?'],
    ),
  },
  {
    list: 'pads',
    tab: 'Pads',
    word: 'pad',
    empty:
      'No pad beside the main heat path. Record those from storage, wireless card and memory, often only under the controller.',
    columns: columnsOf(
      'pads',
      {
        kind: 'choice',
        header: 'from',
        field: 'from',
        options: ['storage', 'wireless', 'memory'],
        width: 'w-28',
      },
      {
        kind: 'ref',
        header: 'to',
        field: 'to',
        of: ['plates'],
        besides: ['base-cover'],
        width: 'w-36',
      },
      ['thicknessMm', 'w-24'],
      ['widthMm', 'w-20'],
      ['lengthMm', 'w-20'],
      ['sourceW', 'w-20'],
      ['state', 'w-24'],
    ),
  },
];
