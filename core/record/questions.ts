import { figureValue, type Figure } from './figure';
import type { CaseRecord } from './recordSchema';

/** Something in a record that can be, but hardly is so; it keeps nothing from an estimate. */
export interface Question {
  /** Of the field, parts by their place. */
  path: string;
  message: string;
}

/** What base, deck and the clearance of an impeller take of a shell's thickness at least, mm (common practice, no source). */
const WALLS_MM = 2;
/** Below this a correction for the background is capped (ISO 3744, from memory). */
const LEAST_ABOVE_DB = 6;
/** A part may be recorded a little larger than the shell that was measured at its rim. */
const SLACK = 1.02;

const v = (figure: unknown): number | undefined => {
  const value = figureValue(figure as Figure | undefined);
  return typeof value === 'number' && Number.isFinite(value) ? value : undefined;
};

/**
 * What a reviewer should look at once more: figures that do not fit the recorded shell, and vents that are linked to nothing, so
 * that they are not in the answer.
 *
 * @param record a record that passed its schema, complete or not
 * @returns in the order of the record
 * @example questionsOf(record) // [{ path: 'finStacks.0.heightMm', message: '40 mm high in a machine 21 mm thick' }]
 */
export function questionsOf(record: CaseRecord): Question[] {
  return [...shellQuestions(record), ...ventQuestions(record), ...sweepQuestions(record)];
}

/** Levels hardly above their background: the machine may be quieter. */
function sweepQuestions({ noise }: CaseRecord): Question[] {
  const background = v(noise?.backgroundDbA);
  if (background === undefined) return [];
  return (noise?.sweep ?? []).flatMap((s, i) => {
    const level = v(s.dbA);
    if (level === undefined || level - background >= LEAST_ABOVE_DB) return [];
    return [
      {
        path: `noise.sweep.${i}.dbA`,
        message: `less than ${LEAST_ABOVE_DB} dB above the background of ${background} dB(A): an upper bound, the machine may be quieter`,
      },
    ];
  });
}

/** Fields that lie flat in the shell, by kind of part: no longer than its diagonal, or than a face. */
const FLAT: readonly (readonly [
  'plates' | 'finStacks' | 'fans' | 'pads' | 'dies',
  readonly string[],
])[] = [
  ['dies', ['widthMm', 'lengthMm']],
  ['plates', ['widthMm', 'lengthMm']],
  ['finStacks', ['widthMm', 'depthMm']],
  ['fans', ['impellerDiameterMm']],
  ['pads', ['widthMm', 'lengthMm']],
];
const HIGH: readonly (readonly ['plates' | 'finStacks' | 'fans' | 'heatPipes', string, string])[] =
  [
    ['plates', 'thicknessMm', 'thick'],
    ['heatPipes', 'flattenedMm', 'thick'],
    ['finStacks', 'heightMm', 'high'],
    ['fans', 'bladeHeightMm', 'high'],
  ];

function shellQuestions(record: CaseRecord): Question[] {
  const out: Question[] = [];
  const thick = v(record.shell?.thicknessMm);
  const width = v(record.shell?.widthMm);
  const depth = v(record.shell?.depthMm);
  const field = (part: unknown, name: string) => v((part as Record<string, unknown>)[name]);
  for (const [list, name, word] of HIGH) {
    (record[list] ?? []).forEach((part, i) => {
      const high = field(part, name);
      if (thick === undefined || high === undefined || high <= thick - WALLS_MM) return;
      out.push({
        path: `${list}.${i}.${name}`,
        message: `${high} mm ${word} in a machine ${thick} mm thick: is it so?`,
      });
    });
  }
  if (width === undefined || depth === undefined) return [...out, ...ventSizes(record)];
  const longest = Math.max(width, depth) * SLACK;
  for (const [list, names] of FLAT) {
    (record[list] ?? []).forEach((part, i) => {
      for (const name of names) {
        const size = field(part, name);
        if (size === undefined || size <= longest) continue;
        out.push({
          path: `${list}.${i}.${name}`,
          message: `${size} mm in a machine of ${width} × ${depth} mm: is it so?`,
        });
      }
    });
  }
  (record.heatPipes ?? []).forEach((pipe, i) => {
    const length = v(pipe.lengthMm);
    if (length === undefined || length <= (width + depth) * SLACK) return;
    out.push({
      path: `heatPipes.${i}.lengthMm`,
      message: `${length} mm long in a machine of ${width} × ${depth} mm: is it so?`,
    });
  });
  return [...out, ...ventSizes(record)];
}

/** Vents larger than the face that they are in. */
function ventSizes(record: CaseRecord): Question[] {
  const { thicknessMm, widthMm, depthMm } = record.shell ?? {};
  const [thick, width, depth] = [thicknessMm, widthMm, depthMm].map(v);
  const out: Question[] = [];
  (record.vents ?? []).forEach((vent, i) => {
    const flat = vent.side === undefined ? vent.flow !== 'exhaust' : /base|deck/.test(vent.side);
    const along = vent.side === 'left' || vent.side === 'right' ? depth : width;
    const across = flat ? depth : thick;
    for (const [name, most] of [
      ['widthMm', flat ? Math.max(width ?? NaN, depth ?? NaN) : along],
      ['lengthMm', flat ? Math.max(width ?? NaN, depth ?? NaN) : across],
    ] as const) {
      const size = v(vent[name]);
      if (size === undefined || most === undefined || Number.isNaN(most)) continue;
      if (size <= most * SLACK) continue;
      out.push({
        path: `vents.${i}.${name}`,
        message: `${size} mm on a face of ${most} mm: is it so?`,
      });
    }
  });
  return out;
}

function ventQuestions(record: CaseRecord): Question[] {
  const out: Question[] = [];
  (record.vents ?? []).forEach((vent, i) => {
    if (vent.flow === 'intake' && !vent.fans?.length) {
      out.push({
        path: `vents.${i}.fans`,
        message: `“${vent.id}” feeds no fan, so that it is not in the answer`,
      });
    }
    if (vent.flow === 'exhaust' && !vent.finStacks?.length) {
      out.push({
        path: `vents.${i}.finStacks`,
        message: `“${vent.id}” lets out no fin stack, so that it is not in the answer`,
      });
    }
  });
  return out;
}
