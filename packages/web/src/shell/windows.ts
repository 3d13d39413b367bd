/** Windows over a place, loaded with their first opening. */
import { modals } from '@mantine/modals';
import { createElement, Suspense, type ComponentType } from 'react';
import { lazyPart } from '../kit/loadWithRetry.ts';
import type { OpenWindow, WindowName, WindowProps } from '../desk/windows.ts';
import { WindowBody } from '../kit/WindowBody.tsx';

const close = () => modals.close('window');

interface WindowEntry {
  readonly title: string;
  /** Width in pixels. */
  readonly size: number;
  readonly body: ComponentType<WindowProps>;
  /** Whether it must open without taking the page long: it may come while a sound is put on it. */
  readonly light?: boolean;
}

const WINDOWS: Readonly<Record<WindowName, WindowEntry>> = {
  setup: {
    title: 'Set up programme',
    size: 620,
    body: lazyPart(() => import('../material/SetupForm.tsx')),
    light: true,
  },
  marks: {
    title: 'Marks',
    size: 760,
    body: lazyPart(() => import('../timing/panels/MarksTable.tsx')),
  },
  makeMarks: {
    title: 'Make marks',
    size: 480,
    body: lazyPart(() => import('../timing/panels/MakeMarks.tsx')),
  },
  pasteMarks: {
    title: 'Marks from timecodes',
    size: 560,
    body: lazyPart(() => import('../timing/panels/PasteMarks.tsx')),
  },
  pull: {
    title: 'Pull starts to beats or marks',
    size: 620,
    body: lazyPart(() => import('../timing/panels/PullStarts.tsx')),
  },
  findAgain: {
    title: 'Find speech again',
    size: 480,
    body: lazyPart(() => import('../timing/panels/FindAgain.tsx')),
  },
  weave: {
    title: 'Weave words',
    size: 680,
    body: lazyPart(() => import('../weaving/Weave.tsx')),
  },
  cutCues: {
    title: 'Cut cues',
    size: 780,
    body: lazyPart(() => import('../weaving/CutCues.tsx')),
  },
  ontoBeat: {
    title: 'Set words on beats, marks or evenly',
    size: 720,
    body: lazyPart(() => import('../weaving/OntoBeat.tsx')),
  },
  woven: {
    title: 'Weave report',
    size: 860,
    body: lazyPart(() => import('../weaving/Report.tsx')),
  },
  carry: {
    title: 'Carry cues over to another sound',
    size: 720,
    body: lazyPart(() => import('../weaving/Carry.tsx')),
  },
  strands: {
    title: 'Strands',
    size: 720,
    body: lazyPart(() => import('../strands/StrandsTable.tsx')),
  },
  sections: {
    title: 'Sections of the roll',
    size: 560,
    body: lazyPart(() => import('../travel/Sections.tsx')),
  },
  feed: {
    title: 'Items of a feed',
    size: 720,
    body: lazyPart(() => import('../travel/Feed.tsx')),
  },
  carried: {
    title: 'Cues changed by carrying over',
    size: 780,
    body: lazyPart(() => import('../weaving/Carried.tsx')),
  },
  cards: {
    title: 'Cards from a list',
    size: 780,
    body: lazyPart(() => import('../travel/Cards.tsx')),
  },
  fitLines: {
    title: 'Fit lines',
    size: 780,
    body: lazyPart(() => import('../words/FitLines.tsx')),
  },
  mergeCues: {
    title: 'Merge short cues',
    size: 780,
    body: lazyPart(() => import('../words/MergeCues.tsx')),
  },
  letters: {
    title: 'Capitals and punctuation',
    size: 780,
    body: lazyPart(() => import('../words/Letters.tsx')),
  },
  sheetLetters: {
    title: 'Capitals in the sheet',
    size: 780,
    body: lazyPart(() => import('../travel/SheetLetters.tsx')),
  },
  rightWords: {
    title: 'Dictionary of this programme',
    size: 520,
    body: lazyPart(() => import('../words/RightWords.tsx')),
  },
  tempoMap: {
    title: 'Tempo map from a MIDI file',
    size: 480,
    body: lazyPart(() => import('../timing/panels/TempoMapForm.tsx')),
  },
};

/** How many windows were opened: one that takes the place of its like begins anew. */
let opened = 0;

/** Opens a window, in the place of another one that is open. */
export const openWindow: OpenWindow = (name, about) => {
  const { title, size, body, light = false } = WINDOWS[name];
  close();
  modals.open({
    modalId: 'window',
    title,
    size,
    ...(light && { lockScroll: false, transitionProps: { duration: 0 } }),
    children: createElement(
      Suspense,
      { key: ++opened, fallback: createElement('p', { className: 'quiet' }, 'Opening …') },
      createElement(WindowBody, null, createElement(body, { close, show: openWindow, about })),
    ),
  });
};
