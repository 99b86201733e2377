import { useCallback, useEffect, useRef, useState } from 'react';
import { levelWatch, type WatchedLevel } from '@zugluft/core/sound/levelWatch';

/** How often the figure moves, ms. */
const SHOWN_MS = 200;

/** Functions of a browser that change what is heard; each must be off. */
const CHANGES = {
  autoGainControl: 'automatic gain',
  echoCancellation: 'echo cancelling',
  noiseSuppression: 'noise suppression',
} as const;

export interface Microphone {
  state: 'off' | 'asked' | 'on';
  /** Over a sine of digital full scale. */
  level: WatchedLevel | null;
  /** What the browser would not switch off. */
  disobeyed: string[];
  problem: string | null;
  start: () => void;
  stop: () => void;
  /** Begins the energy mean anew. */
  again: () => void;
}

/** The microphone of this computer, with all that a browser does to speech switched off. */
export function useMicrophone(): Microphone {
  const [state, setState] = useState<Microphone['state']>('off');
  const [level, setLevel] = useState<WatchedLevel | null>(null);
  const [disobeyed, setDisobeyed] = useState<string[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const end = useRef<(() => void) | null>(null);
  const watch = useRef<ReturnType<typeof levelWatch> | null>(null);
  const rate = useRef(48_000);

  const stop = useCallback(() => {
    end.current?.();
    end.current = null;
    setState('off');
  }, []);
  useEffect(() => () => end.current?.(), []);

  const start = useCallback(() => {
    const begin = async () => {
      // typed as always there, but absent where the page is not served safely
      const devices = navigator.mediaDevices as MediaDevices | undefined;
      if (!devices) throw new Error('this browser gives no microphone to a page served like this');
      const stream = await devices.getUserMedia({
        audio: {
          autoGainControl: false,
          echoCancellation: false,
          noiseSuppression: false,
          channelCount: 1,
        },
      });
      const [track] = stream.getAudioTracks();
      const settings = (track?.getSettings() ?? {}) as Record<string, unknown>;
      setDisobeyed(
        Object.entries(CHANGES).flatMap(([key, words]) => (settings[key] === true ? [words] : [])),
      );
      const context = new AudioContext();
      const done = () => {
        for (const t of stream.getTracks()) t.stop();
        void context.close();
      };
      try {
        await context.audioWorklet.addModule('/microphone.js');
        // a page that nobody touched yet starts silent
        await context.resume();
        rate.current = context.sampleRate;
        watch.current = levelWatch(rate.current, 0);
        const node = new AudioWorkletNode(context, 'microphone', { numberOfOutputs: 0 });
        node.port.onmessage = ({ data }: MessageEvent<Float32Array>) => watch.current?.push(data);
        context.createMediaStreamSource(stream).connect(node);
      } catch (cause) {
        done();
        throw cause;
      }
      const timer = setInterval(() => setLevel(watch.current?.now() ?? null), SHOWN_MS);
      end.current = () => {
        clearInterval(timer);
        done();
      };
      setState('on');
    };
    setProblem(null);
    setState('asked');
    begin().catch((cause: Error) => {
      setState('off');
      setProblem(
        cause.name === 'NotAllowedError'
          ? 'the microphone was not allowed: allow it for this page in the browser'
          : cause.name === 'NotFoundError'
            ? 'this computer has no microphone'
            : cause.message,
      );
    });
  }, []);

  const again = useCallback(() => {
    watch.current = levelWatch(rate.current, 0);
    setLevel(null);
  }, []);

  return { state, level, disobeyed, problem, start, stop, again };
}
