import '@fontsource-variable/hanken-grotesk/wght.css';
import '@fontsource-variable/spline-sans-mono/wght.css';
import './styles.css';
import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode, useMemo, useState } from 'react';
import { config } from 'zod';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, redirect, RouterProvider } from 'react-router';
import { Toaster } from 'sonner';
import { libraryClient } from '../api/libraryClient';
import { makeReady } from './makeReady';
import { startOffline } from './offline/startOffline';
import { onArrived, watchLeaving } from '../documents/keepers';
import { LIBRARY, oldLibraryAddress, OVERVIEW } from '../documents/places';
import { OverviewPage } from '../features/overview/OverviewPage';
import { FrameContext } from '../kit/PageFrame';
import { AppShell } from './AppShell';
import { SignIn } from './SignIn';
import { UnknownPage } from './UnknownPage';
import { CrashPage } from './CrashPage';
import type { UnitPreference } from '@zugluft/core/record/units';
import { storedUnits, storeUnits, UnitContext } from '../kit/units';
import { storedTheme, storeTheme, ThemeContext, type Theme } from '../kit/theme';

const client = libraryClient({ defaultOptions: { queries: { retry: 1 } } });

const router = createBrowserRouter([
  {
    errorElement: <CrashPage />,
    hydrateFallbackElement: <p className="p-6">Opening.</p>,
    children: [
      {
        path: OVERVIEW,
        loader: ({ request }) => {
          const old = oldLibraryAddress(new URL(request.url).search);
          return old ? redirect(old) : null;
        },
        element: <OverviewPage />,
      },
      { path: '/overview', element: <Navigate to={OVERVIEW} replace /> },
      {
        path: LIBRARY,
        lazy: async () => ({
          Component: (await import('../features/library/LibraryPage')).LibraryPage,
        }),
      },
      {
        path: '/machines/:id',
        lazy: async () => ({
          Component: (await import('../features/machine/MachinePage')).MachinePage,
        }),
        children: [
          { index: true, element: <Navigate to="cooling" replace /> },
          {
            path: 'identify',
            lazy: async () => ({
              Component: (await import('../features/identify/IdentifyStep')).IdentifyStep,
            }),
          },
          {
            path: 'count',
            lazy: async () => ({
              Component: (await import('../features/count/CountStep')).CountStep,
            }),
          },
          {
            path: 'outside',
            lazy: async () => ({
              Component: (await import('../features/outside/OutsideStep')).OutsideStep,
            }),
          },
          {
            path: 'cooling',
            lazy: async () => ({
              Component: (await import('../features/cooling/CoolingStep')).CoolingStep,
            }),
          },
          {
            path: 'estimate',
            lazy: async () => ({
              Component: (await import('../features/estimate/EstimateStep')).EstimateStep,
            }),
          },
          {
            path: 'runs',
            lazy: async () => ({
              Component: (await import('../features/runs/RunsStep')).RunsStep,
            }),
          },
          {
            path: 'levers',
            lazy: async () => ({
              Component: (await import('../features/levers/LeversStep')).LeversStep,
            }),
          },
          {
            path: 'verdict',
            lazy: async () => ({
              Component: (await import('../features/verdict/VerdictStep')).VerdictStep,
            }),
          },
          {
            path: 'open-up',
            lazy: async () => ({
              Component: (await import('../features/open-up/OpenUpStep')).OpenUpStep,
            }),
            children: [
              {
                index: true,
                lazy: async () => ({
                  Component: (await import('../features/open-up/LogDesk')).LogDesk,
                }),
              },
              {
                path: 'parts',
                lazy: async () => ({
                  Component: (await import('../features/open-up/PartsDesk')).PartsDesk,
                }),
              },
              {
                path: 'score',
                lazy: async () => ({
                  Component: (await import('../features/open-up/ScorePage')).ScorePage,
                }),
              },
              {
                path: 'guide',
                lazy: async () => ({
                  Component: (await import('../features/open-up/GuidePage')).GuidePage,
                }),
              },
              {
                path: 'bench',
                lazy: async () => ({
                  Component: (await import('../features/open-up/bench/BenchMode')).BenchMode,
                }),
              },
            ],
          },
          {
            path: 'photos',
            lazy: async () => ({
              Component: (await import('../features/photos/PhotosStep')).PhotosStep,
            }),
          },
          {
            path: 'photos/:photo',
            lazy: async () => ({
              Component: (await import('../features/measure/MeasurePage')).MeasurePage,
            }),
          },
          {
            path: 'run-sheet',
            lazy: async () => ({
              Component: (await import('../features/runs/RunSheetPage')).RunSheetPage,
            }),
          },
          {
            path: 'bench-sheet',
            lazy: async () => ({
              Component: (await import('../features/bench-sheet/BenchSheetPage')).BenchSheetPage,
            }),
          },
          {
            path: 'history',
            lazy: async () => ({
              Component: (await import('../features/history/HistoryStep')).HistoryStep,
            }),
          },
        ],
      },
      {
        path: '/compare/*',
        lazy: async () => ({
          Component: (await import('../features/compare/ComparePage')).ComparePage,
        }),
      },
      {
        path: '/method',
        lazy: async () => ({
          Component: (await import('../features/method/MethodPage')).MethodPage,
        }),
      },
      {
        path: '/runs',
        lazy: async () => ({
          Component: (await import('../features/all-runs/AllRunsPage')).AllRunsPage,
        }),
      },
      {
        path: '/learned',
        lazy: async () => ({
          Component: (await import('../features/learned/LearnedPage')).LearnedPage,
        }),
      },
      {
        path: '/bench-day',
        lazy: async () => ({
          Component: (await import('../features/bench-day/BenchDayPage')).BenchDayPage,
        }),
      },
      {
        path: '/house-rules',
        lazy: async () => ({
          Component: (await import('../features/laboratory/HouseRulesPage')).HouseRulesPage,
        }),
      },
      {
        path: '/laboratory/history/:kind',
        lazy: async () => ({
          Component: (await import('../features/laboratory/LabHistoryPage')).LabHistoryPage,
        }),
      },
      { path: '*', element: <UnknownPage /> },
    ],
  },
]);

function App() {
  const [theme, setTheme] = useState<Theme>(storedTheme);
  const [units, setUnits] = useState(storedUnits);
  const unitValue = useMemo(
    () => ({
      units,
      choose: (next: UnitPreference) => {
        storeUnits(next);
        setUnits(next);
      },
    }),
    [units],
  );
  const value = useMemo(
    () => ({
      theme,
      toggle: () => {
        const next = theme === 'chalk' ? 'dim' : 'chalk';
        storeTheme(next);
        setTheme(next);
      },
    }),
    [theme],
  );
  return (
    <ThemeContext value={value}>
      <UnitContext value={unitValue}>
        <QueryClientProvider client={client}>
          <FrameContext value={AppShell}>
            <RouterProvider router={router} />
          </FrameContext>
          <SignIn />
          <Toaster position="bottom-left" toastOptions={{ duration: 6000 }} />
        </QueryClientProvider>
      </UnitContext>
    </ThemeContext>
  );
}

// the page's content policy allows no code made at run time, which the validator would try
config({ jitless: true });
storeTheme(storedTheme());
// while developing, old parts of the program would be in the way
if (import.meta.env.PROD) void startOffline();
watchLeaving();
// what was typed shows in the lists
onArrived((kind) => {
  if (kind === 'photo' || kind === 'log') return;
  void client.invalidateQueries({ queryKey: ['machines', 'list'] });
  void client.invalidateQueries({ queryKey: ['machines', 'family'] });
});
makeReady();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
