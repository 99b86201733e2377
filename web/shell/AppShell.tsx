import { useCommands } from '../documents/commands';
import { LIBRARY, OVERVIEW } from '../documents/places';
import { beginMachine } from '../documents/record/freshMachine';
import { Moon, Sun } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { CommandPalette } from './CommandPalette';
import type { FrameProps } from '../kit/PageFrame';
import { Kbd } from '../kit/Kbd';
import { useFieldOrder } from '../kit/fieldOrder';
import { KeySheet } from './KeySheet';
import { SpaceWarning } from './SpaceWarning';
import { WhoIsHere } from './WhoIsHere';
import { useTheme } from '../kit/theme';
import { useShownAsKept } from '../api/serverSeen';
import { useUnits } from '../kit/units';
import { UnitsDialog } from './UnitsDialog';

/** Whoever goes to another page with the keyboard stands on it: arrows scroll it, the reading place is its beginning. */
function useLandOnPage(): void {
  const { pathname } = useLocation();
  useEffect(() => {
    // once the page has been painted: to focus earlier would lay it out once more
    const frame = requestAnimationFrame(() => {
      const main = document.querySelector('main');
      if (!main || document.activeElement !== document.body) return;
      main.tabIndex = -1;
      main.focus({ preventScroll: true });
    });
    return () => cancelAnimationFrame(frame);
  }, [pathname]);
}

/** The frame of every screen: where one is, whether it is saved, and the way to everything else. */
export function AppShell({ crumbs, status, children }: FrameProps) {
  const { theme, toggle } = useTheme();
  const navigate = useNavigate();
  const [finding, setFinding] = useState(false);
  const [keys, setKeys] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const { units } = useUnits();
  const kept = useShownAsKept();
  useFieldOrder();
  useLandOnPage();
  useCommands({
    find: () => setFinding(true),
    keys: () => setKeys(true),
    library: () => void navigate(LIBRARY),
    overview: () => void navigate(OVERVIEW),
    'new-machine': () => beginMachine(navigate),
    method: () => void navigate('/method'),
    laboratory: () => void navigate('/house-rules'),
    learned: () => void navigate('/learned'),
    'all-runs': () => void navigate('/runs'),
    'bench-day': () => void navigate('/bench-day'),
    units: () => setChoosing(true),
    theme: toggle,
  });
  return (
    <>
      <header className="no-print flex items-center gap-x-5 gap-y-1 flex-wrap px-4 min-h-[3.2rem] py-1.5 border-b border-ink text-[0.92rem]">
        <Link
          to={OVERVIEW}
          className="flex items-center gap-2.5 font-bold text-lg"
          aria-label="Zugluft, overview"
        >
          <svg
            width="24"
            height="20"
            viewBox="0 0 24 20"
            fill="none"
            stroke="currentColor"
            strokeWidth="2"
            strokeLinecap="round"
            aria-hidden
          >
            <path d="M2 4h13M2 10h20M2 16h9" />
          </svg>
          Zugluft
        </Link>
        <nav aria-label="place" className="text-quiet min-w-0 truncate grow basis-40">
          <Link
            to={OVERVIEW}
            className={`hover:text-ink mr-3 ${crumbs.some(Boolean) ? 'max-sm:hidden' : ''}`}
          >
            Overview
          </Link>
          <Link to={LIBRARY} className="hover:text-ink">
            Library
          </Link>
          {crumbs.filter(Boolean).map((c) => (
            <span key={c}> / {c}</span>
          ))}
        </nav>
        <div className="flex items-center gap-4 text-quiet no-print flex-wrap">
          {kept && (
            <span className="text-heat" role="status">
              the server is away: as last seen here
            </span>
          )}
          <SpaceWarning />
          <WhoIsHere />
          {status}
          <Link to="/method" className="hover:text-ink">
            method <Kbd>m</Kbd>
          </Link>
          <button
            type="button"
            className="cursor-pointer hover:text-ink"
            title="units, key u"
            aria-label="units"
            onClick={() => setChoosing(true)}
          >
            {units.length} {units.temperature}
          </button>
          <button
            type="button"
            className="cursor-pointer hover:text-ink"
            onClick={() => setFinding(true)}
          >
            find or do <Kbd>/</Kbd>
          </button>
          <button
            type="button"
            className="key-hint cursor-pointer hover:text-ink"
            onClick={() => setKeys(true)}
          >
            keys <Kbd>?</Kbd>
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-xs px-1"
            onClick={toggle}
            aria-label={theme === 'chalk' ? 'dim the screen for a dark test room' : 'light screen'}
            title={theme === 'chalk' ? 'dim, for a dark test room' : 'light'}
          >
            {theme === 'chalk' ? <Moon size={15} aria-hidden /> : <Sun size={15} aria-hidden />}
          </button>
        </div>
      </header>
      {children}
      <CommandPalette open={finding} close={() => setFinding(false)} />
      <UnitsDialog open={choosing} close={() => setChoosing(false)} />
      <KeySheet open={keys} close={() => setKeys(false)} />
    </>
  );
}
