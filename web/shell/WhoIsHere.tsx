import { useQuery } from '@tanstack/react-query';
import { toast } from 'sonner';
import { fetchSession, signOut } from '../api/session';
import { sendAll } from '../documents/keepers';
import { ANSWER_CACHE } from './offline/kept';

/** Answers that this browser keeps for when the server is away are not for whoever comes next. */
async function forgetKept(): Promise<void> {
  if ('caches' in window) await caches.delete(ANSWER_CACHE);
}

/** Who is signed in, where that is asked, and the way out. */
export function WhoIsHere() {
  const { data } = useQuery({
    queryKey: ['session'],
    queryFn: fetchSession,
    staleTime: Infinity,
    retry: false,
  });
  if (!data?.needed || data.name === null) return null;
  const leave = async (anyway = false) => {
    // what is still here would go out under the next name
    if (!anyway && !(await sendAll())) {
      toast.error(
        'Not signed out: some of what was typed is not on the server yet, and would go there under the name that signs in next.',
        { action: { label: 'Sign out anyway', onClick: () => void leave(true) } },
      );
      return;
    }
    try {
      await signOut();
    } catch (cause) {
      toast.error(`Not signed out: ${(cause as Error).message}.`);
      return;
    }
    await forgetKept();
    location.reload();
  };
  return (
    <span data-testid="who">
      <bdi>{data.name}</bdi>
      {data.role === 'guest' && ', reading only'}{' '}
      <button
        type="button"
        className="cursor-pointer underline underline-offset-2 hover:text-ink py-1"
        onClick={() => void leave()}
      >
        sign out
      </button>
    </span>
  );
}
