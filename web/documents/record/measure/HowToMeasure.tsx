import { measuringOf } from '@zugluft/core/record/howToMeasure';
import { useEffect, useState } from 'react';
import { Modal } from '../../../kit/Modal';
import { MeasureWords } from './MeasureWords';

const PREFIX = 'field-';

/** The field's path where the hand is, of the table of fields; null elsewhere. */
function pathInHand(target: EventTarget | null): string | null {
  if (!(target instanceof Element)) return null;
  const field = target.closest<HTMLElement>(`[id^="${PREFIX}"]`);
  return field ? field.id.slice(PREFIX.length) : null;
}

/** F1 in a field of the record tells how it is taken; the hand returns to the field. */
export function HowToMeasure() {
  const [path, setPath] = useState<string | null>(null);
  useEffect(() => {
    const listen = (e: KeyboardEvent) => {
      if (e.key !== 'F1' || e.ctrlKey || e.metaKey || e.altKey) return;
      const asked = pathInHand(e.target);
      if (asked === null || !measuringOf(asked)) return;
      // the browser's own help would open
      e.preventDefault();
      setPath(asked);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  const how = path === null ? undefined : measuringOf(path);
  if (!how) return null;
  return (
    <Modal title={`How to measure: ${how.name}`} open onClose={() => setPath(null)}>
      <MeasureWords how={how} />
      <form method="dialog" className="mt-3" onSubmit={() => setPath(null)}>
        <button type="submit" className="btn btn-sm btn-primary" autoFocus>
          Back to the field
        </button>
      </form>
    </Modal>
  );
}
