import { useQueries } from '@tanstack/react-query';
import { readLog } from '../../api/openUp';
import { wayWorker } from '../../documents/answer/workers/wayClient';
import { useLabSettings } from '../../documents/useLaboratory';

/**
 * Service score of each machine by the laboratory's rubric of now, as the team agreed to it; null where nothing could be judged, or
 * is not known yet.
 *
 * @param ids of machines
 */
export function useServiceScores(ids: readonly string[]): Readonly<Record<string, number | null>> {
  const { settings, ready } = useLabSettings();
  const { rubric } = settings;
  return useQueries({
    queries: ids.map((id) => ({
      queryKey: ['machines', 'service-score', id, rubric],
      queryFn: async () => {
        const { log } = await readLog(id);
        return (await wayWorker().serviceScore(log, rubric)).agreed;
      },
      enabled: ready,
      gcTime: 0,
      retry: false,
    })),
    // an object, which stays the same one as long as the scores do
    combine: (all) => Object.fromEntries(ids.map((id, i) => [id, all[i]?.data ?? null])),
  });
}
