import { createContext, useContext } from 'react';
import { METRIC, type UnitPreference } from '@zugluft/core/record/units';

/** The units in which figures are shown and typed, and how to change them. The record keeps its own. */
export const UnitContext = createContext<{
  units: UnitPreference;
  choose: (units: UnitPreference) => void;
}>({ units: METRIC, choose: () => undefined });

export const useUnits = () => useContext(UnitContext);

const KEY = 'zugluft.units';

export function storedUnits(): UnitPreference {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<UnitPreference>;
    return {
      length: kept.length === 'in' ? 'in' : 'mm',
      temperature: kept.temperature === '°F' ? '°F' : '°C',
      altitude: kept.altitude === 'ft' ? 'ft' : 'm',
    };
  } catch {
    return METRIC;
  }
}

export function storeUnits(units: UnitPreference): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(units));
  } catch {
    // without storage the choice lasts until the page closes
  }
}
