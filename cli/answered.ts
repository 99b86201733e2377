import { UnknownSettingError } from '@zugluft/core/case/openCase';
import { BadInput } from './badInput';

/** What a command writes to stdout, and its exit code. */
export interface Answered {
  stdout: string;
  code: number;
}

/** The answer of a command as one JSON document; what is wrong with its input with its place and exit code 2. */
export async function answered(make: () => object | Promise<object>): Promise<Answered> {
  try {
    return { stdout: JSON.stringify(await make()), code: 0 };
  } catch (cause) {
    if (!(cause instanceof BadInput || cause instanceof UnknownSettingError)) throw cause;
    const path = cause instanceof BadInput ? cause.path : '--setting';
    return { stdout: JSON.stringify({ error: { path, message: cause.message } }), code: 2 };
  }
}
