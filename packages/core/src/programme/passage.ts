/**
 * A passage: the long text of a roll or a crawl, how it looks, and how it travels.
 *
 * A cue that names it puts it on the programme; without one it is kept, and travels nowhere.
 */
import type { Motion } from '../pace/travel.ts';

export const ALIGNMENTS = ['left', 'centre', 'right'] as const;
export type Alignment = (typeof ALIGNMENTS)[number];

/** How a roll looks. Everything but the size is a share of it, so that a roll is as high as its size. */
export interface RollLook {
  readonly family: string;
  /** Of names and lines, in pixels. */
  readonly size: number;
  readonly colour: string;
  readonly headingColour: string;
  readonly roleColour: string;
  /** From one baseline to the next, as a multiple of the size of a line. */
  readonly lineSpacing: number;
  readonly titleRatio: number;
  readonly headingRatio: number;
  readonly roleRatio: number;
  readonly largerRatio: number;
  readonly smallerRatio: number;
  /** Between roles and names, and between columns, as a multiple of the size. */
  readonly gutter: number;
  /** Where the gutter is, as a share of the frame's width from its left. */
  readonly gutterAt: number;
  /** How wide roles and names may be on either side, as a share of the frame's width: where their far edges align. */
  readonly sideWidth: number;
  readonly roleAlign: Alignment;
  readonly nameAlign: Alignment;
  readonly capitalHeadings: boolean;
  readonly capitalRoles: boolean;
  readonly capitalNames: boolean;
  readonly boldHeadings: boolean;
  readonly boldRoles: boolean;
  readonly boldNames: boolean;
  /** Height of a blank line, as a multiple of a usual one. */
  readonly blank: number;
  /** Height of a picture, in usual lines. */
  readonly picture: number;
  /** How far text fades at the top and the bottom, as a share of the frame's height. */
  readonly softEdge: number;
  /** What lies behind it, and how much that covers: from 0, nothing, to 1. */
  readonly behind: string;
  readonly behindOpacity: number;
  /** Whether it goes downwards, last line first. */
  readonly downwards: boolean;
  /** How far it leans to the right when it is through, in degrees; it begins upright. */
  readonly tilt: number;
  /** How far it sways to either side, as a share of the frame's width; and in how many frames to and fro. */
  readonly sway: number;
  readonly swayFrames: number;
}

export const CRAWL_DIRECTIONS = ['left', 'right'] as const;

/** How a crawl looks. */
export interface CrawlLook {
  readonly family: string;
  /** In pixels. */
  readonly size: number;
  readonly colour: string;
  /** What stands between two items. */
  readonly between: string;
  /** How often it comes by. */
  readonly times: number;
  /** Where it goes to. */
  readonly towards: (typeof CRAWL_DIRECTIONS)[number];
  /** How far its window is from the left and from the right edge of the frame, in pixels. */
  readonly insetLeft: number;
  readonly insetRight: number;
  /** How far text fades at either end of its window, in pixels. */
  readonly softEdge: number;
  /** Height of the band behind it as a multiple of the size; 0 for none. */
  readonly band: number;
  readonly bandColour: string;
  readonly bandOpacity: number;
  /** How much the picture is blurred under the band, in pixels. */
  readonly bandBlur: number;
  /** Frames in which the band and its label come and go. */
  readonly bandFade: number;
  /** From the band's lower edge to the frame's, in pixels. */
  readonly up: number;
  /** What stands still at the end from which text comes, or to which it goes; empty for nothing. */
  readonly label: string;
  readonly labelSide: (typeof CRAWL_DIRECTIONS)[number];
  readonly labelColour: string;
  readonly labelBehind: string;
}

/** The look of a roll on a frame of `height` pixels. */
export const rollLook = (height: number): RollLook => ({
  family: 'Noto Sans',
  size: Math.round(height * 0.039),
  colour: '#ffffff',
  headingColour: '#ffffff',
  roleColour: '#c3c7d0',
  lineSpacing: 1.3,
  titleRatio: 1.6,
  headingRatio: 1.05,
  roleRatio: 1,
  largerRatio: 1.3,
  smallerRatio: 0.8,
  gutter: 0.6,
  gutterAt: 0.5,
  sideWidth: 0.3,
  roleAlign: 'right',
  nameAlign: 'left',
  capitalHeadings: true,
  capitalRoles: false,
  capitalNames: false,
  boldHeadings: true,
  boldRoles: false,
  boldNames: false,
  blank: 1,
  picture: 4,
  softEdge: 0,
  behind: '#0d0e12',
  behindOpacity: 1,
  downwards: false,
  tilt: 0,
  sway: 0,
  swayFrames: 250,
});

/** The look of a crawl on a frame of `height` pixels. */
export const crawlLook = (height: number): CrawlLook => ({
  family: 'Noto Sans',
  size: Math.round(height * 0.045),
  colour: '#ffffff',
  between: '   •   ',
  times: 1,
  towards: 'left',
  insetLeft: 0,
  insetRight: 0,
  softEdge: 0,
  band: 1.8,
  bandColour: '#14171c',
  bandOpacity: 0.85,
  bandBlur: 0,
  bandFade: 0,
  up: Math.round(height * 0.06),
  label: '',
  labelSide: 'left',
  labelColour: '#14171c',
  labelBehind: '#d9b55a',
});

/** Of size, time and speed, the one that follows from the other two. */
export const FOLLOWING = ['speed', 'time', 'size'] as const;
export type Following = (typeof FOLLOWING)[number];

/** How a passage travels. */
export interface Journey extends Motion {
  readonly follows: Following;
  /** In pixels a frame; where it follows, what it was when something else did. */
  readonly speed: number;
  /** Which end stays where it is when the time follows. */
  readonly keeps: 'start' | 'end';
  /** How much of the way is left out at its beginning and at its end, in pixels. */
  readonly skipStart: number;
  readonly skipEnd: number;
}

export const USUAL_JOURNEY: Journey = {
  follows: 'speed',
  speed: 2,
  keeps: 'start',
  skipStart: 0,
  skipEnd: 0,
  holdStart: 0,
  holdEnd: 0,
  easeIn: 0,
  easeOut: 0,
};

interface PassageOf<Kind, Look> {
  readonly id: string;
  readonly kind: Kind;
  readonly title: string;
  /** As it is typed; `text/sheet.ts` says how it is read. */
  readonly sheet: string;
  /** What parts roles from names, where the editor chose it. */
  readonly separator?: string | null;
  /** What differs from the usual look. */
  readonly look: Partial<Look>;
  readonly journey: Journey;
}
export type Roll = PassageOf<'roll', RollLook>;
export type Crawl = PassageOf<'crawl', CrawlLook>;
export type Passage = Roll | Crawl;

/** The whole look of a roll on a frame of `height` pixels. */
export const lookOfRoll = ({ look }: Pick<Roll, 'look'>, height: number): RollLook => ({
  ...rollLook(height),
  ...look,
});

/** The whole look of a crawl on a frame of `height` pixels. */
export const lookOfCrawl = ({ look }: Pick<Crawl, 'look'>, height: number): CrawlLook => ({
  ...crawlLook(height),
  ...look,
});

/** The size of a passage's text, in pixels. */
export const sizeOf = (
  passage: Passage,
  { frame }: { readonly frame: { readonly height: number } },
): number =>
  (passage.kind === 'roll' ? lookOfRoll(passage, frame.height) : lookOfCrawl(passage, frame.height))
    .size;

/** A passage in another size. */
export const withSize = (passage: Passage, size: number): Passage =>
  ({ ...passage, look: { ...passage.look, size } }) as Passage;
