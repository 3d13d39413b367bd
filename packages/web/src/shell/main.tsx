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
import { holdWindow } from '../sync/thisWindow.ts';
import { store } from '../desk/store.ts';
import { theme } from '../kit/theme.ts';

const Shell = lazyPart(() => import('./Shell.tsx'));
const MaterialPlace = lazyPart(() => import('../material/MaterialPlace.tsx'));
const WordsPlace = lazyPart(() => import('../words/WordsPlace.tsx'));
const TimingPlace = lazyPart(() => import('../timing/TimingPlace.tsx'));
const TravelPlace = lazyPart(() => import('../travel/TravelPlace.tsx'));
const HandoverPlace = lazyPart(() => import('../handover/HandoverPlace.tsx'));

holdWindow();

const router = createBrowserRouter([
  { path: '/', element: <ProgrammesPlace /> },
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
          </ErrorBoundary>
        </ModalsProvider>
      </Provider>
    </MantineProvider>
  </StrictMode>,
);
