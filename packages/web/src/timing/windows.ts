/** Windows over a place, loaded with their first opening. */
import { modals } from '@mantine/modals';
import { createElement, Suspense, type ComponentType } from 'react';
import { lazyPart } from '../app/patiently.ts';

/** What every window is given: how it closes, and how it opens another in its place. */
interface WindowProps {
  readonly close: () => void;
  readonly show: (name: 'pasteMarks' | 'makeMarks') => void;
}

const close = () => modals.close('timing');

const WINDOWS = {
  marks: {
    title: 'Marks',
    size: 760,
    body: lazyPart(() => import('./MarksTable.tsx')),
  },
  makeMarks: {
    title: 'Make marks',
    size: 480,
    body: lazyPart(() => import('./MakeMarks.tsx')),
  },
  pasteMarks: {
    title: 'Marks from timecodes',
    size: 560,
    body: lazyPart(() => import('./PasteMarks.tsx')),
  },
  pull: {
    title: 'Pull starts to the beat',
    size: 620,
    body: lazyPart(() => import('./PullStarts.tsx')),
  },
  findAgain: {
    title: 'Find speech again in this stretch',
    size: 480,
    body: lazyPart(() => import('./FindAgain.tsx')),
  },
  fitLines: {
    title: 'Fit the lines',
    size: 780,
    body: lazyPart(() => import('./FitLines.tsx')),
  },
  tempoMap: {
    title: 'Tempo map from a MIDI file',
    size: 480,
    body: lazyPart(() => import('./TempoMapForm.tsx')),
  },
} as const satisfies Record<
  string,
  { title: string; size: number; body: ComponentType<WindowProps> }
>;

export type WindowName = keyof typeof WINDOWS;

/** Opens a window, in the place of another one that is open. */
export function showWindow(name: WindowName): void {
  const { title, size, body } = WINDOWS[name];
  close();
  modals.open({
    modalId: 'timing',
    title,
    size,
    children: createElement(
      Suspense,
      { fallback: createElement('p', { className: 'quiet' }, 'Opening …') },
      createElement(body, { close, show: showWindow }),
    ),
  });
}
