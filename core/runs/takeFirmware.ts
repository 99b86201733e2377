import { isObject, setAt, type Json } from '../record/plainJson';
import type { FirmwareFigure } from './firmwareSeen';

/** Decimals that a ± supports, of watts, seconds and kelvins alike. */
const DECIMALS = 1;
const rounded = (x: number) => Number(x.toFixed(DECIMALS));

/**
 * Puts figures that a run showed into a setting of the record, as measured; a record without that setting gets it.
 *
 * @param draft the record, perhaps half typed
 * @param setting id of the setting
 * @param figures of `firmwareSeen`
 */
export function takeFirmware<T>(
  draft: T,
  setting: string,
  figures: readonly Pick<FirmwareFigure, 'path' | 'value' | 'plusMinus'>[],
): T {
  const settings = (draft as Json)['settings'];
  const list = Array.isArray(settings) ? (settings as unknown[]) : [];
  const found = list.findIndex((s) => isObject(s) && s['id'] === setting);
  const at = found < 0 ? list.length : found;
  let next = found < 0 ? setAt(draft, ['settings'], [...list, { id: setting }]) : draft;
  for (const { path, value, plusMinus } of figures) {
    next = setAt(next, ['settings', at, ...path.split('.')], {
      value: rounded(value),
      plusMinus: rounded(Math.max(plusMinus, 0.1)),
      origin: 'measured',
    });
  }
  return next;
}
