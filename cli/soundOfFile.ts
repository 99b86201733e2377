import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { hearWav, LARGEST_WAV } from '@zugluft/core/sound/hearWav';
import { soundMeter, type SoundAnalysis } from '@zugluft/core/sound/soundMeter';
import { blockBytes } from '@zugluft/core/sound/wavFile';
import { BadInput } from './badInput';

/** Bytes that are read at once. */
const PIECE = 1 << 18;

/**
 * Measures a WAV file piece by piece.
 *
 * @param file its path
 * @param fullScaleDb level of a sine of digital full scale
 * @param channel from 1
 * @param progress told the share done
 * @throws BadInput where it cannot be taken
 */
export async function soundOfFile(
  file: string,
  fullScaleDb: number,
  channel: number,
  progress: (share: number) => void = () => undefined,
): Promise<SoundAnalysis> {
  const size = await sizeOf(file);
  if (size > LARGEST_WAV) throw new BadInput('--wav', 'the file is larger than a WAV file can be');
  let meter: ReturnType<typeof soundMeter> | null = null;
  const found = await hearWav(
    createReadStream(file, { highWaterMark: PIECE }),
    size,
    channel,
    (header) => {
      const count = header.dataBytes / blockBytes(header);
      const own = soundMeter(header.sampleRateHz, fullScaleDb, count);
      meter = own;
      let heard = 0;
      return {
        push: (samples) => {
          own.push(samples);
          heard += samples.length;
          progress(heard / count);
        },
      };
    },
  );
  if ('message' in found) {
    throw new BadInput(found.channel ? '--wav-channel' : '--wav', found.message);
  }
  return meter!.end();
}

async function sizeOf(file: string): Promise<number> {
  try {
    return (await stat(file)).size;
  } catch (cause) {
    const code = (cause as NodeJS.ErrnoException).code ?? 'failed';
    throw new BadInput('--wav', `cannot read ${file}: ${code}`);
  }
}
