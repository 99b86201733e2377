import { Link } from 'react-router';
import type { CalibrationInUse } from '../../documents/record/useCalibration';

/** What the estimate stands on besides the record. */
export function StandsOn({
  machineId,
  version,
  runs,
  lapsed,
}: CalibrationInUse & { machineId: string }) {
  const of = `${runs} ${runs === 1 ? 'run' : 'runs'}`;
  return (
    <p className="text-small my-1" data-testid="stands-on">
      <Link
        to={`/machines/${machineId}/runs?view=calibration`}
        className={lapsed ? 'text-heat underline' : 'text-quiet underline hover:text-ink'}
      >
        {lapsed
          ? `the record alone: it has changed since calibration ${version}, fit again`
          : `calibrated with ${of}, version ${version}`}
      </Link>
    </p>
  );
}
