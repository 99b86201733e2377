import type { RunAnalysis, RunDocument } from '../../api/runs';
import { FieldRow } from '../../kit/FieldRow';
import { NumberInput } from './NumberInput';

type Log = NonNullable<RunDocument['logs']>[number];

/** Recordings of a run: each is calibrated by a tone or a typed figure, then its level lies beside the load. */
export function RecordingPanel({
  run,
  recordings,
  change,
}: {
  run: RunDocument;
  recordings: RunAnalysis['recordings'];
  change: (next: Partial<RunDocument>, what: string) => void;
}) {
  const set = (id: string, next: Partial<Log>, what: string) =>
    change(
      {
        logs: (run.logs ?? []).map((l) => {
          if (l.id !== id) return l;
          const { fullScaleDb: _, toneDb: __, ...rest } = l;
          return { ...rest, ...next };
        }),
      },
      what,
    );
  return (
    <section aria-label="recordings" className="mt-3">
      <h3 className="text-small font-semibold">Recordings</h3>
      {recordings.map((r) => {
        const log = (run.logs ?? []).find((l) => l.id === r.id);
        if (!log) return null;
        return (
          <div key={r.id} className="py-1">
            <p className="text-[0.9rem]">
              {log.file} <span className="figure text-quiet">{Math.round(r.durationS)}</span>{' '}
              <span className="unit">s</span>
              {r.leqDbA !== null && !r.tone && (
                <>
                  {', '}
                  <span className="figure">{r.leqDbA.toFixed(1)}</span>{' '}
                  <span className="unit">dB(A) mean</span>
                </>
              )}
              {r.tone &&
                `, a calibrator of ${r.tone.toneDb} dB${r.fullScaleDb === null ? '' : `: full scale is ${r.fullScaleDb.toFixed(1)} dB`}`}
            </p>
            {r.clipped > 0 && (
              <p className="text-heat text-[0.9rem]">
                Overdriven: {r.clipped} samples at full scale; its levels are too low.
              </p>
            )}
            {r.tone?.fault && (
              <p role="alert" className="text-heat text-[0.9rem]">
                {r.tone.fault}.
              </p>
            )}
            {!r.tone && (
              <FieldRow name="full scale" unit="dB">
                <NumberInput
                  label={`full scale of ${log.file}`}
                  value={log.fullScaleDb ?? null}
                  low={-200}
                  high={300}
                  set={(x) =>
                    set(r.id, x === null ? {} : { fullScaleDb: x }, `full scale of ${log.file}`)
                  }
                />
              </FieldRow>
            )}
            {!r.tone && r.fullScaleDb === null && (
              <p className="text-small text-quiet">
                No level yet: add a recording of a calibrator, or type what a sine of full scale is.
              </p>
            )}
            <p className="flex flex-wrap gap-x-4 text-[0.9rem]">
              {[94, 114].map((toneDb) =>
                r.tone?.toneDb === toneDb ? null : (
                  <button
                    key={toneDb}
                    type="button"
                    className="underline cursor-pointer"
                    onClick={() => set(r.id, { toneDb }, `${log.file} is a calibrator`)}
                  >
                    it is a calibrator of {toneDb} dB
                  </button>
                ),
              )}
              {r.tone && (
                <button
                  type="button"
                  className="underline cursor-pointer"
                  onClick={() => set(r.id, {}, `${log.file} is the machine`)}
                >
                  it is the machine
                </button>
              )}
            </p>
          </div>
        );
      })}
    </section>
  );
}
