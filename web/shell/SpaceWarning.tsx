import { useQuery } from '@tanstack/react-query';
import { fetchHealth } from '../api/health';

const LOOK_EVERY_MS = 60_000;
const MB = 1024 * 1024;

/** Says that the disk under the library is nearly full, before it is. */
export function SpaceWarning() {
  const { data } = useQuery({
    queryKey: ['health'],
    queryFn: fetchHealth,
    refetchInterval: LOOK_EVERY_MS,
    // where the server is away that is said elsewhere
    retry: false,
  });
  if (!data?.spaceIsLow) return null;
  return (
    <span className="text-heat" role="status" data-testid="space">
      {Math.floor(data.freeBytes / MB)} MB left on the disk under the library: make room
    </span>
  );
}
