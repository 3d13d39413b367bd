import '@fontsource-variable/commissioner/wght.css';
import '@fontsource-variable/fraunces/wght.css';
import '@mantine/core/styles.css';
import '@mantine/notifications/styles.css';
import '@mantine/dropzone/styles.css';
import '../kit/theme.css';
import { MantineProvider } from '@mantine/core';
import { ModalsProvider } from '@mantine/modals';
import { Notifications } from '@mantine/notifications';
import { StrictMode, Suspense } from 'react';
import { lazyPart } from '../kit/loadWithRetry.ts';
import { createRoot } from 'react-dom/client';
import { ErrorBoundary } from 'react-error-boundary';
import { Provider } from 'react-redux';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { ProgrammesPlace } from '../programmes/ProgrammesPlace.tsx';
import { Broken } from '../kit/Broken.tsx';
import { whenIdle } from '../sync/idle.ts';
import { holdWindow } from '../sync/thisWindow.ts';
import { openProgramme } from '../desk/desk.ts';
import { store } from '../desk/store.ts';
import { theme } from '../kit/theme.ts';

const places = {
  material: () => import('../material/MaterialPlace.tsx'),
  words: () => import('../words/WordsPlace.tsx'),
  timing: () => import('../timing/TimingPlace.tsx'),
  travel: () => import('../travel/TravelPlace.tsx'),
  patterns: () => import('../patterns/PatternsPlace.tsx'),
  handover: () => import('../handover/HandoverPlace.tsx'),
};

const shell = () => import('./Shell.tsx');

/** Fetches a place, so that it is there when it is shown. Where that fails, the place itself asks for the same again. */
function fetchPlace(name: string): void {
  if (Object.hasOwn(places, name)) places[name as keyof typeof places]().catch(() => undefined);
}

/** Fetches what a programme is shown with, before it is opened. */
function fetchAhead(place: string): void {
  shell().catch(() => undefined);
  fetchPlace(place);
}

const Shell = lazyPart(() => {
  // The programme of the address and its place come while the shell does, not after it.
  const [, first, id, place = 'material'] = window.location.pathname.split('/');
  if (first === 'p' && id) {
    openProgramme(id).catch(() => undefined);
    fetchPlace(place);
  }
  return shell();
});
const MaterialPlace = lazyPart(places.material);
const WordsPlace = lazyPart(places.words);
const TimingPlace = lazyPart(places.timing);
const TravelPlace = lazyPart(places.travel);
const PatternsPlace = lazyPart(places.patterns);
const HandoverPlace = lazyPart(places.handover);

holdWindow();

/** What is being written goes on once the page has settled. */
const WritingShare = lazyPart(async () => {
  await whenIdle();
  return import('./WritingShare.tsx');
});

const router = createBrowserRouter([
  { path: '/', element: <ProgrammesPlace fetchAhead={fetchAhead} /> },
  {
    path: '/p/:id',
    element: (
      <Suspense fallback={<p className="empty">Opening …</p>}>
        <Shell />
      </Suspense>
    ),
    children: [
      { index: true, element: <Navigate to="material" replace /> },
      { path: 'material', element: <MaterialPlace /> },
      { path: 'words', element: <WordsPlace /> },
      { path: 'timing', element: <TimingPlace /> },
      { path: 'travel', element: <TravelPlace /> },
      { path: 'patterns', element: <PatternsPlace /> },
      { path: 'handover', element: <HandoverPlace /> },
    ],
  },
  { path: '*', element: <Navigate to="/" replace /> },
]);

createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <MantineProvider theme={theme} defaultColorScheme="light">
      <Provider store={store}>
        <ModalsProvider>
          <Notifications position="bottom-left" limit={4} />
          <ErrorBoundary FallbackComponent={Broken}>
            <RouterProvider router={router} />
            <Suspense fallback={null}>
              <WritingShare />
            </Suspense>
          </ErrorBoundary>
        </ModalsProvider>
      </Provider>
    </MantineProvider>
  </StrictMode>,
);
