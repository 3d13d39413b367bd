/** How the editor looks at the programme: what is selected, how wide a row is, and what is remembered. */
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { TapFor } from '@cadence/core/programme/edits/words/taps.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { Quality } from '@cadence/film/write/order.ts';
import type { Snap } from '@cadence/core/rows/snapping.ts';
import type { Hand } from '@cadence/core/rows/things.ts';
import type { Target } from '@cadence/core/formats/captions.ts';
import { SAFE_AREAS } from '@cadence/core/scene/safeArea.ts';
import { remember, remembered } from './remembered.ts';

export const ROW_SPANS = [1, 2, 4, 8, 16, 30, 60] as const;

export interface View {
  /** Selected cues, the one worked on last. */
  readonly selection: readonly Id[];
  /** What else is picked, all of the kind that is in hand. */
  readonly picked: readonly Id[];
  readonly hand: Hand;
  /** The strand in hand; the first one where the programme has none of this id. */
  readonly strand: Id;
  /** The passage in hand in Travel; the first one where the programme has none of this id. */
  readonly passage: Id;
  /** Whether the other strands are out of the way, in the rows and in the picture. */
  readonly only: boolean;
  readonly secondsARow: number;
  readonly snap: boolean;
  readonly snapTo: Readonly<Record<Snap, boolean>>;
  /** How near a thing must be to snap to it, in pixels. */
  readonly reach: number;
  /** Whether the sound is heard under what is dragged. */
  readonly scrub: boolean;
  readonly tapFor: TapFor;
  /** Whether marks, beats or starts click while playing. */
  readonly clicks: boolean;
  readonly loop: boolean;
  readonly safeArea: boolean;
  /** By whose measure it is drawn: the name of a safe area. */
  readonly safeBy: string;
  /** Whether the text of the frames before and after is seen, faint, while it stands still. */
  readonly beside: boolean;
  readonly speed: number;
  /** Fonts that the editor keeps at hand, and those that were used last, the last one first. */
  readonly fonts: Readonly<Record<'favourites' | 'recent', readonly string[]>>;
  /** How Words shows the text: as lines to type while listening, or as one manuscript. */
  readonly wordsAs: 'lines' | 'text';
  readonly handover: Handover;
}

/** What Handover writes: formats by their names, and what may be chosen of them. */
export interface Handover extends Required<Pick<Target, 'placeCodes' | 'clearLines'>> {
  readonly formats: readonly string[];
  readonly leaves: Leaves;
}

/** What leaves beside captions. */
export type LeavingKind = 'film' | 'text' | 'stills' | 'sound';

/** What Handover writes beside captions, and how. */
export interface Leaves {
  readonly kinds: readonly LeavingKind[];
  /** Whether this browser writes it, or the server. */
  readonly where: 'here' | 'server';
  /** Container and codec, such as `mp4 h264`. */
  readonly format: string;
  /** Height in pixels; that of the programme where nothing is said. */
  readonly lines: number | null;
  readonly half: boolean;
  /** Or bits a second. */
  readonly quality: Quality | number;
  /** Strands that go along as subtitle tracks. */
  readonly tracks: readonly Id[];
  /** How text alone is written: see-through as WebM or as pictures, or over one colour. */
  readonly text: 'webm' | 'zip' | 'colour';
  readonly colour: string;
  readonly stills: 'frame' | 'cues' | 'marks';
  readonly stillsAlone: boolean;
  /** In LUFS; as it is where nothing is said. */
  readonly loudness: number | null;
  readonly bits: 16 | 24;
  readonly range: 'all' | 'selection' | 'passage' | 'typed';
  /** Times of the programme, as they were typed. */
  readonly from: string;
  readonly to: string;
}

/** Until the editor chooses. */
export const LEAVES: Leaves = {
  kinds: [],
  where: 'here',
  format: 'mp4 h264',
  lines: null,
  half: false,
  quality: 'good',
  tracks: [],
  text: 'webm',
  colour: '#00b140',
  stills: 'frame',
  stillsAlone: false,
  loudness: null,
  bits: 24,
  range: 'all',
  from: '',
  to: '',
};

const REMEMBERED = 'cadence-view';

const HANDOVER: Handover = {
  formats: ['srt', 'vtt'],
  placeCodes: false,
  clearLines: false,
  leaves: LEAVES,
};

const kept = remembered<Partial<View>>(REMEMBERED);

const initialState: View = {
  hand: 'cues',
  strand: '',
  passage: '',
  only: false,
  secondsARow: 8,
  snap: true,
  snapTo: { marks: true, beats: true, bars: true, pieces: true, hits: true, cues: true },
  reach: 8,
  scrub: true,
  tapFor: 'marks',
  clicks: false,
  loop: false,
  safeArea: false,
  safeBy: SAFE_AREAS[0].name,
  beside: false,
  speed: 1,
  fonts: { favourites: [], recent: [] },
  wordsAs: 'lines',
  ...kept,
  handover: {
    ...HANDOVER,
    ...kept?.handover,
    leaves: { ...LEAVES, ...kept?.handover?.leaves },
  },
  selection: [],
  picked: [],
};

const slice = createSlice({
  name: 'view',
  initialState,
  reducers: {
    selected: (state, action: PayloadAction<readonly Id[]>) => ({
      ...state,
      selection: action.payload,
      picked: [],
    }),
    picked: (state, action: PayloadAction<readonly Id[]>) => ({
      ...state,
      picked: action.payload,
    }),
    /** Takes a strand in hand; nothing of another one stays selected. */
    tookStrand: (state, action: PayloadAction<Id>) => ({
      ...state,
      strand: action.payload,
      selection: [],
      picked: [],
    }),
    looked: (state, action: PayloadAction<Partial<Omit<View, 'selection' | 'picked'>>>) => ({
      ...state,
      ...action.payload,
      picked: action.payload.hand === undefined ? state.picked : [],
    }),
  },
});

export const { selected, picked, tookStrand, looked } = slice.actions;
export const viewReducer = slice.reducer;

/** Keeps what should be the same after a reload. */
export function rememberView({ selection: _selection, picked: _picked, ...rest }: View): void {
  remember(REMEMBERED, rest);
}
