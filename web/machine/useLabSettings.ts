import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { DEFAULT_RULES } from '@zugluft/core/service/houseRules';
import type { LabSettingKey } from '@zugluft/core/service/labSettings';
import { readSettings, saveSetting, settingsKey, type LabSettings } from '../api/settings';

const BUILT_IN: LabSettings = { 'house-rules': DEFAULT_RULES, rubric: {} };

/** What the lab has decided: its house rules and rubric, shown at once when changed; built in while the server is away. */
export function useLabSettings() {
  const client = useQueryClient();
  const { data, isPending } = useQuery({ queryKey: settingsKey, queryFn: readSettings });
  const {
    mutate,
    error,
    isPending: saving,
  } = useMutation({
    mutationFn: ({ key, value }: { key: LabSettingKey; value: never }) => saveSetting(key, value),
    onMutate: ({ key, value }) => {
      client.setQueryData<LabSettings>(settingsKey, (s = BUILT_IN) => ({ ...s, [key]: value }));
    },
    onSuccess: (all) => client.setQueryData(settingsKey, all),
    onError: () => client.invalidateQueries({ queryKey: settingsKey }),
  });
  return {
    settings: data ?? BUILT_IN,
    loading: isPending,
    saving,
    error: error as Error | null,
    /** What the lab decided is known: before that nothing is changed, since the rest would be lost. */
    ready: data !== undefined,
    save<K extends LabSettingKey>(key: K, value: LabSettings[K]) {
      if (data) mutate({ key, value: value as never });
    },
  };
}
