import { open, stat } from 'node:fs/promises';
import { soundMeter, type SoundAnalysis } from '@zugluft/core/sound/soundMeter';
import { blockBytes, wavHeader, wavSamples } from '@zugluft/core/sound/wavFile';
import { BadInput } from './badInput';

/** A WAV file cannot say that it is larger. */
const LARGEST_WAV = 2 ** 32;
const HEAD = 65_536;
/** Sample blocks that are read at once. */
const BLOCKS = 65_536;
const LONGEST_S = 3700;

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
  const handle = await open(file);
  try {
    const head = new Uint8Array(Math.min(HEAD, size));
    await handle.read(head, 0, head.length, 0);
    const header = wavHeader(head, size);
    if ('message' in header) throw new BadInput('--wav', header.message);
    if (channel > header.channels) {
      throw new BadInput('--wav-channel', `the file has ${header.channels} channels`);
    }
    const block = blockBytes(header);
    const count = header.dataBytes / block;
    if (count > LONGEST_S * header.sampleRateHz) {
      throw new BadInput('--wav', 'the recording is longer than an hour');
    }
    const meter = soundMeter(header.sampleRateHz, fullScaleDb, count);
    const bytes = new Uint8Array(BLOCKS * block);
    for (let at = 0; at < header.dataBytes; at += bytes.length) {
      const wanted = Math.min(bytes.length, header.dataBytes - at);
      const { bytesRead } = await handle.read(bytes, 0, wanted, header.dataFrom + at);
      if (bytesRead < wanted)
        throw new BadInput('--wav', 'the file became shorter while it was read');
      meter.push(wavSamples(bytes.subarray(0, wanted), header, channel - 1));
      progress((at + wanted) / header.dataBytes);
    }
    return meter.end();
  } finally {
    await handle.close();
  }
}

async function sizeOf(file: string): Promise<number> {
  try {
    return (await stat(file)).size;
  } catch (cause) {
    const code = (cause as NodeJS.ErrnoException).code ?? 'failed';
    throw new BadInput('--wav', `cannot read ${file}: ${code}`);
  }
}
