/** The windows over a place, by name. The shell, which knows what is in each, opens them. */

export type WindowName =
  | 'setup'
  | 'marks'
  | 'makeMarks'
  | 'pasteMarks'
  | 'pull'
  | 'findAgain'
  | 'weave'
  | 'cutCues'
  | 'ontoBeat'
  | 'woven'
  | 'carry'
  | 'carried'
  | 'strands'
  | 'sections'
  | 'feed'
  | 'cards'
  | 'fitLines'
  | 'mergeCues'
  | 'letters'
  | 'sheetLetters'
  | 'rightWords'
  | 'tempoMap';

/** Opens a window; `about` is the id of what it is about, or {@link BEGIN}. */
export type OpenWindow = (name: WindowName, about?: string) => void;

/** What `about` is where a window begins its work as soon as it is open. */
export const BEGIN = 'begin';

/** What every window is given: how it closes, and how it opens another in its place. */
export interface WindowProps {
  readonly close: () => void;
  readonly show: OpenWindow;
  /** The id of what it is about, where it was opened from that. */
  readonly about?: string | undefined;
}

let open: OpenWindow = () => undefined;

/** Says who opens windows; called once, by the shell. */
export function openWindowsWith(opener: OpenWindow): void {
  open = opener;
}

/** Opens a window, in the place of another one that is open. */
export const showWindow: OpenWindow = (name, about) => open(name, about);
