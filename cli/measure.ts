import { measurePhoto, MeasureFault, parseMarks } from '@zugluft/core/photo/measures';
import { answered } from './answered';
import { BadInput } from './badInput';
import { parsed } from './parsed';
import { photoOfFile } from './photoFile';
import { textOfFile } from './recordFile';

const USAGE = 'usage: npm run --silent measure -- PHOTO --marks MARKS.json';
const OPTIONS = { marks: { type: 'string' } } as const;

/**
 * The measure command: what is marked in a photo, in millimetres, with its ±.
 *
 * @param argv words after the command's name
 * @returns the JSON document for stdout, lines for stderr, and the exit code
 */
export async function run(
  argv: readonly string[],
): Promise<{ stdout: string; stderr: string[]; code: number }> {
  const stderr: string[] = [];
  const { stdout, code } = await answered(async () => {
    const { values, positionals } = parsed(argv, OPTIONS, USAGE, (line) => stderr.push(line));
    const [photo, ...more] = positionals;
    if (photo === undefined || more.length > 0 || values.marks === undefined) {
      stderr.push(USAGE);
      throw new BadInput('', 'needs one photo and --marks');
    }
    const text = textOfFile(values.marks);
    let json: unknown;
    try {
      json = JSON.parse(text);
    } catch (cause) {
      throw new BadInput('', `not JSON: ${(cause as Error).message}`);
    }
    try {
      // what is wrong with the marks is told before a large photo is read
      const marks = parseMarks(json);
      const { picture, lens } = await photoOfFile(photo);
      return measurePhoto(picture, lens, marks);
    } catch (cause) {
      if (cause instanceof MeasureFault) throw new BadInput(cause.path, cause.message);
      throw cause;
    }
  });
  return { stdout, stderr, code };
}
