import { useMemo } from 'react';
import type { Laboratory } from '@zugluft/core/case/laboratory';
import { DOCUMENT_KINDS, LABORATORY } from '@zugluft/core/documents/kinds';
import { labDefaultsOf } from '@zugluft/core/record/labDefaults';
import type { LabSettingKey, LabSettings } from '@zugluft/core/service/labSettings';
import { useDocument } from './useDocument';

const BUILT_IN: LabSettings = DOCUMENT_KINDS.settings.blank!();

/** What the laboratory has decided; built in until it is known. */
export function useLabSettings() {
  const { view, keeper, error, again } = useDocument('settings', LABORATORY);
  return {
    settings: view?.value ?? BUILT_IN,
    state: view?.state ?? null,
    keeper,
    /** It could not be read. */
    error,
    again,
    loading: view === null && error === null,
    /** What the lab decided is known: before that nothing is changed, since the rest would be lost. */
    ready: view !== null,
    save<K extends LabSettingKey>(key: K, value: LabSettings[K]) {
      keeper?.change((s) => ({ ...s, [key]: value }), key);
    },
  };
}

/** The laboratory's own defaults, by name. */
export const useLabDefaults = () => useDocument('defaults', LABORATORY);

/** The laboratory as computations take it; built in until it is known. */
export function useLaboratory(): Laboratory {
  const { settings } = useLabSettings();
  const { view } = useLabDefaults();
  const own = view?.value;
  const caps = settings.caps.levelsDbA;
  return useMemo(
    () => ({ defaults: own ? labDefaultsOf(Object.entries(own)) : {}, caps }),
    [own, caps],
  );
}
