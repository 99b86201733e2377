import { useCommands } from '../../documents/commands';
import { NavLink, Outlet, useNavigate } from 'react-router';
import { useDocument } from '../../documents/useDocument';
import { useMachineFile } from '../../documents/record/MachineFile';
import { OnceMade } from '../../documents/record/OnceMade';
import { Kbd } from '../../kit/Kbd';
import { LogSavingWords, LogTrouble } from './LogStatus';
import { OpenUpLogProvider } from './OpenUpLog';

const VIEWS = [
  { path: '', name: 'Steps and screws', key: '1', command: 'steps' },
  { path: 'parts', name: 'Parts and connectors', key: '2', command: 'parts' },
  { path: 'score', name: 'Service score', key: '3', command: 'score' },
  { path: 'guide', name: 'Guide', key: '4', command: 'guide' },
] as const;

/** The log of the opening: its views at the desk, and the way to the bench. */
export function OpenUpStep() {
  return (
    <OnceMade>
      <Opening />
    </OnceMade>
  );
}

function Opening() {
  const { machine } = useMachineFile();
  const { keeper, error, again } = useDocument('log', machine.id);
  if (keeper) {
    return (
      <OpenUpLogProvider keeper={keeper}>
        <Views />
      </OpenUpLogProvider>
    );
  }
  if (!error) return <p className="text-quiet">Opening the log.</p>;
  return (
    <div>
      <p className="text-heat mb-2" role="alert">
        The log could not be read: {error.message}.
      </p>
      <button type="button" className="btn btn-sm" onClick={() => again()}>
        Try again
      </button>
    </div>
  );
}

function Views() {
  const { machine } = useMachineFile();
  const navigate = useNavigate();
  const at = `/machines/${machine.id}/open-up`;
  const go = (path: string) => () => void navigate(path ? `${at}/${path}` : at);
  useCommands({
    ...Object.fromEntries(VIEWS.map((v) => [v.command, go(v.path)])),
    bench: go('bench'),
  });
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 mb-4 border-b border-rule pb-1.5">
        <nav aria-label="views of the opening" className="flex flex-wrap gap-x-5 gap-y-1">
          {VIEWS.map((v) => (
            <NavLink
              key={v.key}
              to={v.path ? `${at}/${v.path}` : at}
              end
              title={`key ${v.key}`}
              className={({ isActive }) =>
                isActive ? 'font-semibold' : 'text-quiet hover:text-ink'
              }
            >
              {v.name}
            </NavLink>
          ))}
        </nav>
        <span className="grow" />
        <LogSavingWords />
        <NavLink to={`${at}/bench`} className="btn btn-sm btn-primary">
          At the bench <Kbd>f</Kbd>
        </NavLink>
      </div>
      <LogTrouble />
      <Outlet />
    </>
  );
}
