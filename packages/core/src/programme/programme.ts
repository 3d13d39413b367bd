/**
 * The programme: everything an editor makes, as flat tables of entities keyed by id.
 *
 * Flat, so that one edited cue among ten thousand costs one row: in memory, on the wire and on disk.
 */
import type { HitBand } from '../listen/hits/hits.ts';
import type { Drum } from '../listen/pulse/drums.ts';
import type { SectionKind } from '../listen/structure/sectionKinds.ts';
import type { Metre } from '../listen/pulse/metre.ts';
import type { Line } from '../text/lines.ts';
import type { Movement } from '../movement/movement.ts';
import type { ReadingProfile } from '../pace/profile.ts';
import type { Passage } from './passage.ts';
import type { FrameRate } from '../time/frameRate.ts';
import type { Range } from '../time/range.ts';
import type { Ticks } from '../time/ticks.ts';

export type Id = string;

/** What is true of the programme as a whole. Kept as the one entity of kind `programme`. */
export interface Facts {
  readonly id: Id;
  readonly title: string;
  /** Frame size in pixels. */
  readonly frame: { readonly width: number; readonly height: number };
  readonly frameRate: FrameRate;
  /** Timecode of the first frame, in ticks from midnight. */
  readonly startTimecode: Ticks;
  readonly length: Ticks;
  /** Who set frame, rate and length last: a film may set them until the editor has. */
  readonly setBy: 'default' | 'film' | 'editor';
  /** What is heard and what is seen: materials, or null for none. */
  readonly sound: Id | null;
  readonly picture: Id | null;
  readonly backdrop: Backdrop;
  readonly profile: ReadingProfile;
  /** How its text is spelled; British where nothing is said. */
  readonly spelling?: Spelling | null;
  /** Findings that the editor passed over, by their names. */
  readonly passedOver?: readonly string[] | null;
}

/** What stands behind the text where there is no film. */
export interface Backdrop {
  readonly colour: string;
  /** A still picture over the colour: a material. */
  readonly image?: Id | null;
  /** Whether the picture covers the frame, with what does not fit cut off; else all of it is seen. */
  readonly fill?: boolean | null;
  /** What of a picture that is cut off is seen: from 0, its left or its top, to 1. */
  readonly across?: number | null;
  readonly down?: number | null;
}

/** By what its text is proof-read. */
export interface Spelling {
  readonly language: Language;
  /** Words that are right in this programme, as they are written. */
  readonly right: readonly string[];
}

/** Languages whose words are known; `none` is for a text in another one. */
export const LANGUAGES = ['en-GB', 'en-US', 'none'] as const;
export type Language = (typeof LANGUAGES)[number];

/** A file that was brought in. Its bytes are kept elsewhere, under `hash`. */
export interface Material {
  readonly id: Id;
  /** SHA-256 of the content, in hexadecimal. */
  readonly hash: string;
  readonly name: string;
  readonly kind: 'sound' | 'film' | 'font' | 'image';
  readonly bytes: number;
  readonly length: Ticks;
  readonly sound: {
    readonly sampleRate: number;
    readonly channels: number;
    readonly codec: string;
  } | null;
  readonly picture: {
    readonly width: number;
    readonly height: number;
    readonly frameRate: FrameRate | null;
    readonly codec: string;
    /** Whether this browser could decode it when it was brought in. */
    readonly shown: boolean;
  } | null;
  /** The family name of a font. */
  readonly family: string | null;
  /** What an editor should know about it, in sentences. */
  readonly remarks: readonly string[];
  /** How loud it is over time, as `packEnergy` keeps it. */
  readonly energy?: string | null;
  /** The sections of a song, in order, in the time of the material. */
  readonly sections?: readonly Section[] | null;
}

/** A section of a song. */
export interface Section extends Range {
  readonly kind: SectionKind;
  /** Sections with one letter are alike: A, B, C. */
  readonly letter: string;
}

/** Whether text of a kind travels. */
export const isTravelling = (kind: StrandKind | undefined): kind is TravellingKind =>
  TRAVELLING_KINDS.some((each) => each === kind);

/** A shadow under letters, in the direction in which it falls. */
export interface Shadow {
  readonly colour: string;
  /** From 0 to 1. */
  readonly opacity: number;
  /** How far it falls to the right and down, and how wide its edge is, in pixels. */
  readonly across: number;
  readonly down: number;
  readonly blur: number;
}

/** What a plate lies behind. */
export const PLATED = ['word', 'line', 'whole'] as const;

/** The shape behind a text; it grows with it. */
export interface Plate {
  readonly behind: (typeof PLATED)[number];
  readonly colour: string;
  /** From 0 to 1. */
  readonly opacity: number;
  /** How far it reaches over the text to each side, and above and below; and its rounded corners: in ems. */
  readonly across: number;
  readonly down: number;
  readonly corner: number;
}

export const LETTER_CASES = ['as written', 'capitals', 'small letters'] as const;

/** A colour, and the way in which one goes over into it: 0 degrees is to the right, 90 is down. */
export interface Gradient {
  readonly colour: string;
  readonly angle: number;
}

/** A place on the frame, in shares of its width and height: that of the side or the middle that text is set by. */
export interface Placed {
  readonly x: number;
  readonly y: number;
}

/** How text looks and where it stands. Lengths are in pixels of the programme's frame. */
export interface TextStyle {
  readonly family: string;
  readonly size: number;
  readonly colour: string;
  readonly outlineColour: string;
  readonly outlineWidth: number;
  /** The colour of the word that is being said; as the others where nothing is said. */
  readonly saidColour?: string | null;
  readonly across: 'left' | 'centre' | 'right';
  readonly down: 'top' | 'middle' | 'bottom';
  /** Distance of the text from the frame's edge at which it stands. */
  readonly margin: number;
  /** Distance between baselines, as a multiple of the size. */
  readonly lineSpacing: number;
  /** Where it was put by hand; at its margins where nothing is said. */
  readonly placed?: Placed | null;
  /** How far it is turned clockwise about its middle, in degrees. */
  readonly turn?: number | null;
  /** The share of the frame's width at which its lines are broken; they stay as written where nothing is said. */
  readonly breakAt?: number | null;
  /** Frames in which it comes and goes; it cuts where nothing is said. */
  readonly fade?: number | null;
  /** Whether all of it is bold; as written where nothing is said. */
  readonly bold?: boolean | null;
  /** Of a variable font: its weight, from 1 to 1000, and the width of its letters in per cent; as usual where nothing is said. */
  readonly weight?: number | null;
  readonly width?: number | null;
  /** Another colour into which its own goes over, across all of it. */
  readonly gradient?: Gradient | null;
  /** What is between letters besides, in ems; letters that join stay together. */
  readonly letterSpacing?: number | null;
  readonly letterCase?: (typeof LETTER_CASES)[number] | null;
  /** The share of the frame's width that it takes at most: what would take more is set smaller. */
  readonly fitWidth?: number | null;
  readonly shadow?: Shadow | null;
  readonly plate?: Plate | null;
  /** What fills the frame behind it; the picture stays where nothing is said. */
  readonly behind?: string | null;
  /** A still picture that fills the frame behind it, over that. */
  readonly behindImage?: Id | null;
}

/** What the text of a strand is, where it is written in its cues. */
export const TEXT_KINDS = ['subtitle', 'lyric', 'narration', 'card'] as const;
/** What it is where its cues put a passage on the programme, which travels. */
export const TRAVELLING_KINDS = ['roll', 'crawl'] as const;
export const STRAND_KINDS = [...TEXT_KINDS, ...TRAVELLING_KINDS] as const;
export type TextKind = (typeof TEXT_KINDS)[number];
export type TravellingKind = (typeof TRAVELLING_KINDS)[number];
export type StrandKind = (typeof STRAND_KINDS)[number];

export interface Strand {
  readonly id: Id;
  readonly kind: StrandKind;
  readonly title: string;
  readonly style: TextStyle;
  readonly overlapAllowed: boolean;
  /** Where it stands among the strands, the first at the back; 0 where nothing is said. */
  readonly place?: number | null;
  /** Whether it is left out of the picture, and of what is checked. */
  readonly muted?: boolean | null;
  /** The pattern that its cues have where they name no other. */
  readonly pattern?: Id | null;
}

/** A look with its movement, for any number of cues. Lengths are in pixels of the programme's frame. */
export interface Pattern {
  readonly id: Id;
  readonly name: string;
  /** What differs from the style of the strand. */
  readonly look: Partial<TextStyle>;
  readonly movement: Movement;
  /** What it is for, in a few words. */
  readonly note?: string | null;
}

/** A syllable of a word after its first: where it is written, in UTF-16 units, and after what share of the word it is said. */
export interface Syllable {
  readonly from: number;
  readonly share: number;
}

/** A vowel of a word that is held: from which share of the word's time to which, from 0 to 1. */
export interface Hold {
  readonly from: number;
  readonly to: number;
}

/** When one word of a cue is said, and how that is known. */
export interface WordTime extends Range {
  readonly text: string;
  readonly source: 'heard' | 'tapped' | 'woven' | 'spread' | 'pinned';
  /** How sure it is of a woven word, from 0 to 1. */
  readonly confidence?: number | null;
  /** Its syllables after the first, where it is split. */
  readonly syllables?: readonly Syllable[] | null;
  /** Its vowels that are held, in turn, none over another. */
  readonly held?: readonly Hold[] | null;
}

/**
 * What an edge of a cue keeps to: its own first or last word, or a mark. `frames` is how far before that it starts, or
 * after that it ends.
 */
export type Tie =
  | { readonly to: 'word'; readonly frames: number }
  | { readonly to: 'mark'; readonly mark: Id; readonly frames: number };

/** Sounds of keys under the letters of a cue, cut out of a recording of typing; they follow the letters. */
export interface KeySounds {
  /** The recording. Each hit in it is a stroke. */
  readonly material: Id;
  /** Gain in decibels. */
  readonly level: number;
  /** How much one stroke differs from the next in level and place, from 0 to 1. */
  readonly varied: number;
  readonly seed: number;
  /** Where in the recording the space bar is struck, and where return is; like other letters where nothing is said. */
  readonly space?: Ticks | null;
  readonly enter?: Ticks | null;
}

/**
 * How the cues of a group stand together: each below the one before, side by side along one baseline, as a paragraph that
 * builds up, or each in the place of the one before, which it pushes up.
 */
export const STANDING = ['below', 'along', 'paragraph', 'pushed'] as const;
export type Standing = (typeof STANDING)[number];

/** The group that a cue is in: those of one strand with the same id. The first of them says where all stand. */
export interface Grouped {
  readonly id: Id;
  readonly standing: Standing;
}

export interface Cue extends Range {
  readonly id: Id;
  readonly strand: Id;
  readonly text: readonly Line[];
  /** What differs from the strand's style. */
  readonly style: Partial<TextStyle>;
  readonly words: readonly WordTime[];
  /** What the editor noted for themselves: it is in no file that leaves. */
  readonly comment?: string | null;
  /** The words whose sound was cut out from under it, as far as they are known: they are for the editor to delete. */
  readonly cutShort?: string | null;
  readonly startTie?: Tie | null;
  readonly endTie?: Tie | null;
  /** The passage that travels while it lasts; its own text is empty then. */
  readonly passage?: Id | null;
  readonly pattern?: Id | null;
  /** What differs from the movement of its pattern. */
  readonly movement?: Partial<Movement> | null;
  readonly keys?: KeySounds | null;
  readonly group?: Grouped | null;
}

/** A stretch of speech between two pauses; its times are those of its material. */
export interface Piece extends Range {
  readonly id: Id;
  readonly material: Id;
  /** Whether the editor corrected it: finding again leaves it alone. */
  readonly kept?: boolean | null;
}

/** One beat of the pulse of a material, in its time. */
export interface Beat {
  readonly id: Id;
  readonly material: Id;
  readonly at: Ticks;
  /** The metre of the bar that begins with it; null within a bar. */
  readonly bar: Metre | null;
  /** Whether the editor put it there: no computation moves it. */
  readonly fixed: boolean;
  /** What the editor said: that a bar begins here, or that its metre holds from here on too. */
  readonly pin?: 'bar' | 'metre' | null;
  /**
   * What was heard, in hundredths: that a bar begins here; then that its bar has 2, 3 and 4 beats. The bars settle by
   * it when the editor says something.
   */
  readonly opinion?: readonly number[] | null;
}

/** A single short sound in a material, in its time. */
export interface Hit extends Range {
  readonly id: Id;
  readonly material: Id;
  /** The loudest 8 ms, in decibels to full scale. */
  readonly level: number;
  /** Where most of it is heard, where that was listened for: a kick drum is low. */
  readonly band?: HitBand | null;
  /** The drums that are struck with it. */
  readonly drums?: readonly Drum[] | null;
  /** Whether the editor accepted or made it: finding again leaves it alone. */
  readonly kept: boolean;
}

/** The drums of a hit. A low hit whose drums are not known is taken for a kick. */
export const drumsOf = ({ drums, band }: Hit): readonly Drum[] =>
  drums ?? (band === 'low' ? ['kick'] : []);

/** What a mark is for. */
export const PURPOSES = ['place', 'word', 'beat', 'bar', 'speech', 'hit', 'doubt'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** A named instant of the programme. */
export interface Mark {
  readonly id: Id;
  readonly at: Ticks;
  readonly name: string;
  readonly purpose: Purpose;
}

/** How a material is heard in the programme. A material without one is heard only as the main sound, whole. */
export interface Sound {
  readonly id: Id;
  readonly material: Id;
  /** When in the programme it begins. */
  readonly at: Ticks;
  /** What is heard of the material. */
  readonly from: Ticks;
  readonly to: Ticks;
  /** Gain in decibels, 0 for as it is. */
  readonly level: number;
  readonly fadeIn: Ticks;
  readonly fadeOut: Ticks;
  readonly muted: boolean;
}

export type Table<T> = Readonly<Record<Id, T>>;

export interface Programme {
  readonly facts: Facts;
  readonly materials: Table<Material>;
  readonly strands: Table<Strand>;
  readonly cues: Table<Cue>;
  readonly pieces: Table<Piece>;
  readonly beats: Table<Beat>;
  readonly hits: Table<Hit>;
  readonly marks: Table<Mark>;
  readonly sounds: Table<Sound>;
  readonly passages: Table<Passage>;
  readonly patterns: Table<Pattern>;
}

/** Each kind of entity and its type. */
export interface EntityTypes {
  programme: Facts;
  material: Material;
  strand: Strand;
  cue: Cue;
  piece: Piece;
  beat: Beat;
  hit: Hit;
  mark: Mark;
  sound: Sound;
  passage: Passage;
  pattern: Pattern;
}
export type EntityKind = keyof EntityTypes;

/** Where entities of each kind stand in a programme; its facts stand alone. */
export const tableOf = {
  material: 'materials',
  strand: 'strands',
  cue: 'cues',
  piece: 'pieces',
  beat: 'beats',
  hit: 'hits',
  mark: 'marks',
  sound: 'sounds',
  passage: 'passages',
  pattern: 'patterns',
} as const satisfies Record<Exclude<EntityKind, 'programme'>, keyof Programme>;
