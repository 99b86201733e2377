import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useMachineFile } from './MachineFile';

/** What belongs to a machine that the server has; before that, what makes it one. */
export function OnceMade({ children }: { children: ReactNode }) {
  const { made, machine } = useMachineFile();
  if (made) return children;
  return (
    <p className="text-quiet border-l-2 border-air pl-3">
      This machine is not in the library yet: nothing was typed. Begin with{' '}
      <Link to={`/machines/${machine.id}/identify`} className="underline underline-offset-2">
        its maker and model
      </Link>
      .
    </p>
  );
}
