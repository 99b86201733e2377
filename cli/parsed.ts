import { parseArgs, type ParseArgsConfig } from 'node:util';
import { BadInput } from './badInput';

type Options = NonNullable<ParseArgsConfig['options']>;
type Parsed<T extends Options> = ReturnType<
  typeof parseArgs<{ args: string[]; allowPositionals: true; options: T }>
>;

/**
 * Words of a command line, taken apart; its usage is told where they cannot be.
 *
 * @param argv words after the command's name
 * @param options as `parseArgs` takes them
 * @throws BadInput with what is wrong
 */
export function parsed<T extends Options>(
  argv: readonly string[],
  options: T,
  usage: string,
  tell: (line: string) => void,
): Parsed<T> {
  try {
    return parseArgs({ args: [...argv], allowPositionals: true, options });
  } catch (cause) {
    tell(usage);
    throw new BadInput('', (cause as Error).message);
  }
}

/** The same for a command that takes one record file. */
export function parsedWithRecord<T extends Options>(
  argv: readonly string[],
  options: T,
  usage: string,
  tell: (line: string) => void,
): { values: Parsed<T>['values']; file: string } {
  const { values, positionals } = parsed(argv, options, usage, tell);
  const [file, ...more] = positionals as string[];
  if (file === undefined || more.length > 0) {
    tell(usage);
    throw new BadInput('', 'needs one record file');
  }
  return { values, file };
}
