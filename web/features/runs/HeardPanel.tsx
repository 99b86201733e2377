import type { RunAnalysis } from '../../api/runs';

type Sound = NonNullable<RunAnalysis['sound']>;

/** Levels shown below the loudest band, dB. */
const SPAN_DB = 45;

/** What was heard: third octaves as bars, tones that stand out. */
export function HeardPanel({
  bands,
  tones,
  isRecorded,
}: {
  bands: Sound['thirdOctavesDb'];
  tones: Sound['tones'];
  /** A level meter’s log holds neither. */
  isRecorded: boolean;
}) {
  if (!isRecorded) return null;
  const top = Math.ceil(Math.max(...bands.map((b) => b.db), 0) / 5) * 5;
  const prominent = tones.filter((t) => t.prominent);
  return (
    <section aria-label="what was heard" className="mt-3">
      <h3 className="text-small font-semibold">Heard</h3>
      {bands.length > 0 && (
        <>
          <div
            role="img"
            aria-label={`third octaves, unweighted: ${bands.map((b) => `${b.hz} Hz ${b.db.toFixed(0)} dB`).join(', ')}`}
            className="flex items-end gap-px h-24 border-b border-ink mt-1"
          >
            {bands.map((b) => (
              <span
                key={b.hz}
                className="grow bg-air/60"
                style={{
                  height: `${Math.max(0, Math.min(100, (100 * (b.db - top + SPAN_DB)) / SPAN_DB))}%`,
                }}
                title={`${b.hz} Hz: ${b.db.toFixed(1)} dB`}
              />
            ))}
          </div>
          <p className="flex justify-between text-small text-quiet" aria-hidden>
            <span className="figure">{hz(bands[0]!.hz)}</span>
            <span>third octaves, unweighted, top {top} dB</span>
            <span className="figure">{hz(bands[bands.length - 1]!.hz)}</span>
          </p>
        </>
      )}
      <p className="text-[0.9rem]">
        {prominent.length === 0
          ? 'No tone stands out.'
          : `Tones that stand out: ${prominent
              .map((t) => `${hz(t.hz)}, ${t.toneToNoiseDb.toFixed(0)} dB over its noise`)
              .join('; ')}.`}
      </p>
    </section>
  );
}

const hz = (x: number) =>
  x < 1000 ? `${Math.round(x)} Hz` : `${Number((x / 1000).toPrecision(3))} kHz`;
