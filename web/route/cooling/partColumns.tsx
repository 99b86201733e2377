import {
  INTERFACE_KINDS,
  PLATE_KINDS,
  VENT_FLOWS,
  VENT_SIDES,
  WICKS,
} from '@zugluft/core/record/recordSchema';
import type { PartList } from '../../machine/draft';
import type { Column } from '../../ui/PartTable';

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
    columns: [
      { kind: 'choice', header: 'role', field: 'role', options: ['cpu', 'gpu'], width: 'w-20' },
      { kind: 'figure', header: 'width', unit: 'mm', field: 'widthMm', width: 'w-20' },
      { kind: 'figure', header: 'length', unit: 'mm', field: 'lengthMm', width: 'w-20' },
      {
        kind: 'figure',
        header: 'limit',
        unit: '°C',
        field: 'maxJunctionC',
        width: 'w-20',
        assumed: true,
      },
      {
        kind: 'choice',
        header: 'sensor',
        field: 'sensor',
        options: ['hotspot', 'average'],
        empty: 'hotspot?',
        width: 'w-24',
      },
      {
        kind: 'choice',
        header: 'interface',
        field: 'interface.kind',
        options: INTERFACE_KINDS,
        empty: 'paste?',
        width: 'w-32',
      },
      {
        kind: 'figure',
        header: 'conducts',
        unit: 'W/mK',
        field: 'interface.conductivityWmK',
        width: 'w-24',
        assumed: true,
      },
      {
        kind: 'figure',
        header: 'bond line',
        unit: 'µm',
        field: 'interface.bondLineUm',
        width: 'w-24',
        assumed: true,
      },
      {
        kind: 'figure',
        header: 'age',
        unit: 'years',
        field: 'interface.ageYears',
        width: 'w-20',
        assumed: true,
      },
    ],
  },
  {
    list: 'plates',
    tab: 'Plates',
    word: 'plate',
    empty: 'No plate or chamber yet. Add what lies on the dies.',
    columns: [
      { kind: 'choice', header: 'kind', field: 'kind', options: PLATE_KINDS, width: 'w-36' },
      { kind: 'refs', header: 'on dies', field: 'dies', of: 'dies', width: 'w-32' },
      { kind: 'figure', header: 'width', unit: 'mm', field: 'widthMm', width: 'w-20' },
      { kind: 'figure', header: 'length', unit: 'mm', field: 'lengthMm', width: 'w-20' },
      {
        kind: 'figure',
        header: 'thickness',
        unit: 'mm',
        field: 'thicknessMm',
        width: 'w-24',
        assumed: true,
      },
      {
        kind: 'note',
        header: 'covers',
        field: 'covers',
        width: 'w-40',
        render: (p) => (Array.isArray(p['covers']) ? (p['covers'] as string[]).join(', ') : ''),
      },
    ],
  },
  {
    list: 'heatPipes',
    tab: 'Heat pipes',
    word: 'heat pipe',
    empty: 'No heat pipe yet. A machine with a vapor chamber may have none.',
    columns: [
      { kind: 'figure', header: 'count', field: 'count', width: 'w-16' },
      { kind: 'figure', header: 'round', unit: 'mm', field: 'diameterMm', width: 'w-20' },
      {
        kind: 'figure',
        header: 'pressed to',
        unit: 'mm',
        field: 'flattenedMm',
        width: 'w-24',
        assumed: true,
      },
      {
        kind: 'figure',
        header: 'length',
        unit: 'mm',
        field: 'lengthMm',
        width: 'w-20',
        assumed: true,
      },
      {
        kind: 'choice',
        header: 'wick',
        field: 'wick',
        options: WICKS,
        empty: 'sintered?',
        width: 'w-28',
      },
      { kind: 'figure', header: 'tilt', unit: '°', field: 'tiltDeg', width: 'w-16' },
      { kind: 'figure', header: 'bends', field: 'bends', width: 'w-16' },
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
    ],
  },
  {
    list: 'finStacks',
    tab: 'Fin stacks',
    word: 'fin stack',
    empty: 'No fin stack yet. Add one for each block of fins that a fan blows through.',
    columns: [
      { kind: 'figure', header: 'width', unit: 'mm', field: 'widthMm', width: 'w-20' },
      { kind: 'figure', header: 'height', unit: 'mm', field: 'heightMm', width: 'w-20' },
      { kind: 'figure', header: 'depth', unit: 'mm', field: 'depthMm', width: 'w-20' },
      { kind: 'figure', header: 'fins', field: 'finCount', width: 'w-16' },
      {
        kind: 'figure',
        header: 'fin',
        unit: 'mm',
        field: 'finThicknessMm',
        width: 'w-16',
        assumed: true,
      },
      {
        kind: 'choice',
        header: 'of',
        field: 'material',
        options: ['copper', 'aluminium'],
        empty: 'copper?',
        width: 'w-28',
      },
      { kind: 'figure', header: 'blocked', unit: '0–1', field: 'blockedShare', width: 'w-20' },
      { kind: 'refs', header: 'fans', field: 'fans', of: 'fans', width: 'w-32' },
      { kind: 'refs', header: 'sits on', field: 'plates', of: 'plates', width: 'w-28' },
    ],
  },
  {
    list: 'fans',
    tab: 'Fans',
    word: 'fan',
    empty: 'No fan yet. Measure the impeller, not the housing.',
    columns: [
      {
        kind: 'figure',
        header: 'impeller',
        unit: 'mm',
        field: 'impellerDiameterMm',
        width: 'w-24',
      },
      {
        kind: 'figure',
        header: 'blade height',
        unit: 'mm',
        field: 'bladeHeightMm',
        width: 'w-28',
        assumed: true,
      },
      {
        kind: 'figure',
        header: 'least',
        unit: 'rpm',
        field: 'minRpm',
        width: 'w-24',
        assumed: true,
      },
      {
        kind: 'figure',
        header: 'greatest',
        unit: 'rpm',
        field: 'maxRpm',
        width: 'w-24',
        assumed: true,
      },
      {
        kind: 'choice',
        header: 'control',
        field: 'control',
        options: ['shared', 'own'],
        empty: 'shared?',
        width: 'w-24',
      },
    ],
  },
  {
    list: 'vents',
    tab: 'Vents',
    word: 'vent',
    empty:
      'No vent recorded: openings of usual size are assumed. Add them where they are smaller or covered.',
    columns: [
      { kind: 'choice', header: 'flow', field: 'flow', options: VENT_FLOWS, width: 'w-24' },
      {
        kind: 'choice',
        header: 'side',
        field: 'side',
        options: VENT_SIDES,
        empty: 'usual',
        width: 'w-20',
      },
      { kind: 'figure', header: 'width', unit: 'mm', field: 'widthMm', width: 'w-16' },
      { kind: 'figure', header: 'length', unit: 'mm', field: 'lengthMm', width: 'w-16' },
      {
        kind: 'figure',
        header: 'open',
        unit: '0–1',
        field: 'openShare',
        width: 'w-20',
        assumed: true,
      },
      { kind: 'figure', header: 'blocked', unit: '0–1', field: 'blockedShare', width: 'w-20' },
      { kind: 'switch', header: 'mesh', field: 'mesh', width: 'w-12' },
      { kind: 'refs', header: 'feeds fans', field: 'fans', of: 'fans', width: 'w-28' },
      { kind: 'refs', header: 'lets out', field: 'finStacks', of: 'finStacks', width: 'w-28' },
    ],
  },
  {
    list: 'strips',
    tab: 'Strips',
    word: 'strip',
    empty:
      'No strip. Record each strip before anything is taken off: what it covers, and what it is for.',
    columns: [
      { kind: 'text', header: 'kind', field: 'kind', width: 'w-28' },
      { kind: 'ref', header: 'at', field: 'at', of: ['finStacks', 'vents'], width: 'w-36' },
      { kind: 'figure', header: 'covers', unit: '0–1', field: 'coversShare', width: 'w-20' },
      {
        kind: 'choice',
        header: 'purpose',
        field: 'purpose',
        options: ['duct-seal', 'shielding', 'cable', 'unknown'],
        empty: 'unknown?',
        width: 'w-32',
      },
      {
        kind: 'choice',
        header: 'state',
        field: 'state',
        options: ['present', 'removed'],
        empty: 'present?',
        width: 'w-28',
      },
    ],
  },
];
