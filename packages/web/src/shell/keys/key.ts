/** What a key is, and where it counts. */
import { store } from '../../desk/store.ts';

export type KeyGroup =
  | 'Play'
  | 'Move about'
  | 'Cues, or what is in hand'
  | 'Marks and taps'
  | 'The pulse'
  | 'Strands'
  | 'Travel'
  | 'Rows and view'
  | 'Programme'
  | 'While typing in Words'
  | 'In Words as text'
  | 'On a sheet in Travel';

/** A key as it is listed. It is named as it is read aloud: modifiers first, then the key as it is printed. */
export interface ListedKey {
  readonly keys: string;
  readonly does: string;
  readonly group: KeyGroup;
}

export interface Key extends ListedKey {
  /** Undefined where another part of the interface answers the key itself. */
  readonly run?: () => void;
  /** Whether it works on cues or on what else is in hand. */
  readonly ofHand?: boolean;
}

export const inGroup = (group: KeyGroup, keys: readonly Omit<Key, 'group'>[]): Key[] =>
  keys.map((key) => ({ ...key, group }));

export const isIn = (place: string): boolean => window.location.pathname.endsWith(`/${place}`);

/** One key for cues and for whatever else is in hand, which is seen only in Timing. */
export const inHand = (cues: () => void, others: () => void): Pick<Key, 'run' | 'ofHand'> => ({
  run: () => (store.getState().view.hand === 'cues' || !isIn('timing') ? cues() : others()),
  ofHand: true,
});
