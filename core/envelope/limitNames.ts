import type { MachineModel } from '../network/networkModel';
import { FAILURES, LIMITS, type Binding, type Configuration } from './limitTypes';
import { CHAMBER, EXHAUST, FIRMWARE, JUNCTION, NO_FAILURE, PIPE, SKIN } from './limitVisit';

function partId(
  model: MachineModel,
  config: Configuration | null,
  limit: number,
  part: number,
): string {
  const { data } = model;
  switch (limit) {
    case JUNCTION:
      return data.dies[part]!.id;
    case PIPE:
      return data.pipes[part]!.id;
    case CHAMBER:
      return data.plates[part]!.id;
    case SKIN:
      return model.skinPart[part]!;
    case EXHAUST:
      return data.stacks[part]!.id;
    case FIRMWARE:
      return part === 0 ? config!.cpuPart : config!.gpuPart;
    default:
      return 'adapter';
  }
}

/** What binds, in words: the limit, the part's name, and how it fails. */
export function bindingOf(
  model: MachineModel,
  config: Configuration | null,
  limit: number,
  part: number,
  kind: number,
): Binding {
  const id = partId(model, config, limit, part);
  const binding: Binding = { limit: LIMITS[limit]!, part: id };
  return kind === NO_FAILURE ? binding : { ...binding, kind: FAILURES[kind]! };
}

/** What a code of {@link codeOf} means. */
export function bindingOfCode(
  model: MachineModel,
  config: Configuration | null,
  code: number,
): Binding {
  const kind = (code % FAILURE_CODES) - 1;
  const part = Math.floor(code / FAILURE_CODES) % MAX_PARTS;
  return bindingOf(model, config, limitOfCode(code), part, kind);
}

/** Which limit a code is of, as its place in `LIMITS`. */
export function limitOfCode(code: number): number {
  return Math.floor(code / (FAILURE_CODES * MAX_PARTS));
}

/** A limit, its part and its kind as one whole number below 65 536, for many draws; without a kind where it has none. */
export function codeOf(limit: number, part: number, kind = NO_FAILURE): number {
  return (limit * MAX_PARTS + part) * FAILURE_CODES + kind + 1;
}

const MAX_PARTS = 1024;
const FAILURE_CODES = 8;
