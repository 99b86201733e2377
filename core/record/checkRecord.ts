import { fieldsOfPart, PART_WORDS, RECORD_FIELDS, type Field } from './fieldTable';
import { PART_LISTS, type PartListName } from './partLists';
import { getAt, isObject } from './plainJson';
import { figureValue } from './figure';
import type { HeatPipeRecord } from './partSchema';
import type { CaseRecord } from './recordSchema';

/** One thing wrong with a record. `impossible` cannot be kept; `missing` and `unconnected` only keep it from an estimate. */
export interface RecordIssue {
  kind: 'impossible' | 'missing' | 'unconnected';
  path: string;
  message: string;
}

const v = figureValue;

/**
 * Checks what the schema cannot see: figures that contradict each other, figures an estimate needs, parts that are
 * connected to nothing.
 *
 * @param record a record that passed `recordSchema`
 * @returns issues, the impossible ones first, each with the path of its field
 */
export function checkRecord(record: CaseRecord): RecordIssue[] {
  const issues: RecordIssue[] = [];
  const impossible = (path: string, message: string) =>
    issues.push({ kind: 'impossible', path, message });
  const missing = (path: string, message: string) =>
    issues.push({ kind: 'missing', path, message });
  checkNames(record, impossible);
  checkSizes(record, impossible);
  (record.heatPipes ?? []).forEach((pipe, i) => checkAlong(pipe, `heatPipes.${i}`, impossible));
  checkReferences(record, impossible);

  const dies = record.dies ?? [];
  if (!dies.some((d) => d.role === 'cpu' || d.role === 'gpu')) {
    missing('dies', 'needs at least one die');
  }
  for (const list of PART_LISTS) {
    (record[list] ?? []).forEach((part, i) => {
      for (const { at } of NEEDED[list]) {
        if (getAt(part, at.split('.')) === undefined)
          missing(`${list}.${i}.${at}`, 'needs a number');
      }
    });
  }
  checkConnections(record, (path, message) => issues.push({ kind: 'unconnected', path, message }));
  const order = { impossible: 0, missing: 1, unconnected: 2 };
  return issues.sort((a, b) => order[a.kind] - order[b.kind]);
}

type Report = (path: string, message: string) => void;

const NEEDED = Object.fromEntries(
  PART_LISTS.map((list) => [list, fieldsOfPart(list).filter((f) => f.needed)]),
) as Record<PartListName, Field[]>;

/** Fields in which nothing but the name of a part may stand, and their ways through a record. */
const STRICT = RECORD_FIELDS.flatMap(({ at, refersTo }) =>
  refersTo && !refersTo.free ? [{ refersTo, keys: at.split('.') }] : [],
);

/** Shows every name that stands in a field with its path. Called for each record that is written: without lists in between. */
function eachName(
  value: unknown,
  keys: readonly string[],
  from: number,
  under: string,
  show: (path: string, name: string) => void,
): void {
  if (value === undefined || value === null) return;
  const key = keys[from];
  if (key === '*' || (key === undefined && Array.isArray(value))) {
    if (!Array.isArray(value)) return;
    for (let i = 0; i < value.length; i++) {
      eachName(value[i], keys, from + 1, under ? `${under}.${i}` : String(i), show);
    }
  } else if (key !== undefined) {
    if (isObject(value)) {
      eachName(value[key], keys, from + 1, under ? `${under}.${key}` : key, show);
    }
  } else if (typeof value === 'string') show(under, value);
  else if (isObject(value)) for (const name of Object.keys(value)) show(`${under}.${name}`, name);
}

function checkNames(record: CaseRecord, report: Report): void {
  for (const name of [...PART_LISTS, 'settings'] as const) {
    const seen = new Set<string>();
    (record[name] ?? []).forEach((part, i) => {
      if (seen.has(part.id)) report(`${name}.${i}.id`, `the name “${part.id}” is taken already`);
      seen.add(part.id);
    });
  }
  const plates = new Set((record.plates ?? []).map((p) => p.id));
  (record.finStacks ?? []).forEach((s, i) => {
    if (plates.has(s.id)) report(`finStacks.${i}.id`, `a plate is called “${s.id}” already`);
  });
}

function checkSizes(record: CaseRecord, report: Report): void {
  (record.heatPipes ?? []).forEach((p, i) => {
    const d = v(p.diameterMm);
    const t = v(p.flattenedMm);
    const w = v(p.flattenedWidthMm);
    if (d !== undefined && t !== undefined && t > d) {
      report(
        `heatPipes.${i}.flattenedMm`,
        `pressed to ${t} mm, thicker than its diameter of ${d} mm`,
      );
    }
    if (d !== undefined && w !== undefined && w > (Math.PI / 2) * d * 1.02) {
      report(
        `heatPipes.${i}.flattenedWidthMm`,
        `wider than half the pipe’s perimeter, ${((Math.PI / 2) * d).toFixed(1)} mm`,
      );
    }
    if (t !== undefined && w !== undefined && w < t * 0.98) {
      report(`heatPipes.${i}.flattenedWidthMm`, `narrower than its pressed thickness of ${t} mm`);
    }
  });
  (record.finStacks ?? []).forEach((s, i) => {
    const width = v(s.widthMm);
    const count = v(s.finCount);
    const thick = v(s.finThicknessMm);
    if (width === undefined || count === undefined) return;
    const pitch = width / count;
    if (thick !== undefined && thick >= pitch) {
      report(
        `finStacks.${i}.finThicknessMm`,
        `fins of ${thick} mm do not fit a pitch of ${pitch.toFixed(2)} mm`,
      );
    } else if (thick === undefined && pitch < 0.2) {
      report(
        `finStacks.${i}.finCount`,
        `${count} fins over ${width} mm leave a pitch of only ${pitch.toFixed(2)} mm`,
      );
    }
  });
  (record.fans ?? []).forEach((f, i) => {
    const lo = v(f.minRpm);
    const hi = v(f.maxRpm);
    if (lo !== undefined && hi !== undefined && lo > hi) {
      report(`fans.${i}.minRpm`, `least speed is above the greatest, ${hi} rpm`);
    }
  });
  const dies = new Map((record.dies ?? []).map((d) => [d.id, d]));
  (record.plates ?? []).forEach((p, i) => {
    const w = v(p.widthMm);
    const l = v(p.lengthMm);
    if (w === undefined || l === undefined || p.kind === 'none') return;
    let covered = 0;
    for (const id of p.dies ?? []) {
      const d = dies.get(id);
      covered += (v(d?.widthMm) ?? 0) * (v(d?.lengthMm) ?? 0);
    }
    if (covered > w * l) {
      report(`plates.${i}.widthMm`, `the plate is smaller than the dies under it`);
    }
  });
}

function checkAlong(pipe: HeatPipeRecord, path: string, report: Report): void {
  const length = v(pipe.lengthMm);
  let reached = 0;
  (pipe.along ?? []).forEach((a, i) => {
    const from = v(a.fromMm);
    const to = v(a.toMm);
    const at = `${path}.along.${i}`;
    if (from !== undefined && to !== undefined && to <= from) {
      report(`${at}.toMm`, `ends at ${to} mm, before it begins at ${from} mm`);
      return;
    }
    for (const [key, x] of [
      ['fromMm', from],
      ['toMm', to],
    ] as const) {
      if (x === undefined) continue;
      if (length !== undefined && x > length) {
        report(`${at}.${key}`, `lies beyond the pipe’s end at ${length} mm`);
      } else if (x < reached) {
        report(`${at}.${key}`, `lies before the end of the part ahead of it, ${reached} mm`);
      }
    }
    reached = Math.max(reached, to ?? from ?? reached);
  });
}

function checkReferences(record: CaseRecord, report: Report): void {
  const names = Object.fromEntries(
    PART_LISTS.map((list) => [list, new Set((record[list] ?? []).map((x) => x.id))]),
  ) as Record<PartListName, Set<string>>;
  for (const { keys, refersTo } of STRICT) {
    eachName(record, keys, 0, '', (path, name) => {
      if (refersTo.lists.some((list) => names[list].has(name))) return;
      const word = refersTo.lists.map((list) => PART_WORDS[list]).join(' or ');
      report(path, `there is no ${word} called “${name}”`);
    });
  }
  const owner = new Map<string, string>();
  (record.plates ?? []).forEach((p, i) => {
    (p.dies ?? []).forEach((d, j) => {
      if (owner.has(d))
        report(`plates.${i}.dies.${j}`, `the die “${d}” already lies under “${owner.get(d)}”`);
      owner.set(d, p.id);
    });
  });
  (record.plates ?? []).forEach((p, i) =>
    (p.places ?? []).forEach((place, j) => {
      if (!p.dies?.includes(place.die)) {
        report(
          `plates.${i}.places.${j}.die`,
          `the die “${place.die}” does not lie under this plate`,
        );
      }
    }),
  );
  (record.pads ?? []).forEach((p, i) => {
    if (p.to !== undefined && p.to !== 'base-cover' && !names.plates.has(p.to)) {
      report(`pads.${i}.to`, `leads to “${p.to}”, which is neither a plate nor the base-cover`);
    }
    if (p.from !== undefined && p.from === p.to) {
      report(`pads.${i}.to`, 'leads back to where it comes from');
    }
  });
}

function checkConnections(record: CaseRecord, report: Report): void {
  const plates = record.plates ?? [];
  const stacks = record.finStacks ?? [];
  const pipes = record.heatPipes ?? [];
  const dies = record.dies ?? [];
  const underPlate = new Set(plates.flatMap((p) => p.dies ?? []));
  dies.forEach((d, i) => {
    if (!underPlate.has(d.id)) report(`dies.${i}`, `the die “${d.id}” lies under no plate`);
  });
  stacks.forEach((s, i) => {
    if (!s.fans?.length)
      report(`finStacks.${i}.fans`, `no fan blows through the fin stack “${s.id}”`);
  });
  (record.fans ?? []).forEach((f, i) => {
    if (!stacks.some((s) => s.fans?.includes(f.id))) {
      report(`fans.${i}`, `the fan “${f.id}” blows through no fin stack`);
    }
  });
  pipes.forEach((p, i) => {
    if (!p.along?.length) report(`heatPipes.${i}.along`, `the heat pipe “${p.id}” touches no part`);
  });

  // plates, stacks and pipes are joined where they touch; every one must be reached from a die and reach the air
  const neighbours = new Map<string, Set<string>>();
  const join = (a: string, b: string) => {
    if (!neighbours.has(a)) neighbours.set(a, new Set());
    if (!neighbours.has(b)) neighbours.set(b, new Set());
    neighbours.get(a)!.add(b);
    neighbours.get(b)!.add(a);
  };
  for (const p of plates) for (const d of p.dies ?? []) join(`die ${d}`, p.id);
  for (const s of stacks) for (const p of s.plates ?? []) join(s.id, p);
  pipes.forEach((p, i) => {
    for (const a of p.along ?? []) join(`pipe ${i}`, a.part);
  });
  const reach = (starts: readonly string[]) => {
    const seen = new Set(starts);
    const queue = [...starts];
    for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
      for (const next of neighbours.get(at) ?? []) {
        if (!seen.has(next)) {
          seen.add(next);
          queue.push(next);
        }
      }
    }
    return seen;
  };
  const heated = reach(dies.map((d) => `die ${d.id}`));
  const cooled = reach(stacks.filter((s) => s.fans?.length).map((s) => s.id));
  plates.forEach((p, i) => {
    if (!heated.has(p.id))
      report(
        `plates.${i}`,
        `no heat reaches “${p.id}”: no die lies under it and no pipe comes from one`,
      );
    else if (!cooled.has(p.id)) report(`plates.${i}`, `no way leads from “${p.id}” to a fin stack`);
  });
  pipes.forEach((p, i) => {
    if (!p.along?.length) return;
    if (!heated.has(`pipe ${i}`))
      report(`heatPipes.${i}`, `the heat pipe “${p.id}” is reached from no die`);
    else if (!cooled.has(`pipe ${i}`))
      report(`heatPipes.${i}`, `the heat pipe “${p.id}” leads to no fin stack`);
  });
  stacks.forEach((s, i) => {
    if (!heated.has(s.id))
      report(`finStacks.${i}`, `no pipe and no plate brings heat to “${s.id}”`);
  });
  if (!stacks.length) report('finStacks', 'needs at least one fin stack');
}
