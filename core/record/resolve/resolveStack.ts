import { type PipeData, type StackData } from '../caseData';
import { type CaseRecord } from '../recordSchema';
import { type Resolver } from '../resolver';
import { lostSeals, presentStripShare } from './strips';

const MM = 1e-3;

export function resolveStack(
  record: CaseRecord,
  index: number,
  pipes: readonly PipeData[],
  r: Resolver,
): StackData {
  const s = record.finStacks![index]!;
  const at = `finStacks.${s.id}`;
  const widthM = r.known(`${at}.widthMm`, s.widthMm) * MM;
  const heightM = r.known(`${at}.heightMm`, s.heightMm) * MM;
  const depthM = r.known(`${at}.depthMm`, s.depthMm) * MM;
  const count = r.known(`${at}.finCount`, s.finCount);
  const thickM =
    r.figure(`${at}.finThicknessMm`, s.finThicknessMm, 'finStacks.finThicknessMm') * MM;
  const pitch = widthM / count;
  const thin = Math.min(thickM, 0.9 * pitch);
  const open =
    (1 - r.optional(`${at}.blockedShare`, s.blockedShare, 0)) * presentStripShare(record, s.id, r);
  const under = pipes.reduce(
    (sum, p) =>
      p.contacts.some((c) => c.part.kind === 'stack' && c.part.index === index)
        ? sum + p.count * p.outerWidthM
        : sum,
    0,
  );
  const hasVent = (record.vents ?? []).some(
    (x) => x.flow === 'exhaust' && x.finStacks?.includes(s.id),
  );
  const plates = (s.plates ?? []).map((id) => record.plates!.findIndex((p) => p.id === id));
  return {
    id: s.id,
    widthM,
    passages: count * open,
    gapM: pitch - thin,
    openShare: (pitch - thin) / pitch,
    fin: {
      heightM,
      depthM,
      thicknessM: thin,
      conductivityWmK: r.factor(`finStacks.conductivity.${s.material ?? 'copper'}`),
      joined: s.joined ?? 'one-side',
    },
    contactDepthM: plates.length ? depthM : Math.max(1e-3, under),
    pipeOrder: pipeOrder(record, index, pipes),
    lintShare: r.optional(`${at}.lintShare`, s.lintShare, 0),
    extraLeakage: lostSeals(record, s.id, r),
    fans: (s.fans ?? []).map((id) => record.fans!.findIndex((f) => f.id === id)),
    plates,
    plateJointM2KPerW: plates.length ? r.factor('finStacks.soldered.platesM2KW') : 0,
    ownExhaust: hasVent
      ? null
      : { areaM2: widthM * heightM, openShare: r.factor('finStacks.exhaustOpenShare') },
  };
}

/** Pipes on a stack in the order the air meets them: as recorded, the others behind in the order of the record. */
function pipeOrder(record: CaseRecord, stack: number, pipes: readonly PipeData[]): number[] {
  const touching: number[] = [];
  for (let k = 0; k < pipes.length; k++) {
    const touches = pipes[k]!.contacts.some(
      ({ part }) => part.kind === 'stack' && part.index === stack,
    );
    if (touches) touching.push(k);
  }
  const named = record.finStacks![stack]!.pipesFromFan ?? [];
  return touching.sort((a, b) => rankIn(named, pipes[a]!) - rankIn(named, pipes[b]!) || a - b);
}

function rankIn(named: readonly string[], { id }: PipeData): number {
  const i = named.indexOf(id);
  return i < 0 ? named.length : i;
}
