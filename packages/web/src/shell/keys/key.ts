/** What a key is, and where it counts. */
import { isIn, type PlaceName } from '../../desk/places.ts';
import { store } from '../../desk/store.ts';

export type KeyGroup =
  | 'Places'
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
  | 'On a sheet in Travel'
  | 'In Patterns'
  | 'On the picture, in Patterns and Timing'
  | 'In Handover';

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
  /** The only place in which it works, where there is one. */
  readonly place?: PlaceName;
  /** Whether it needs a selected cue. */
  readonly ofCue?: boolean;
  /** Whether it is answered where something is typed too. */
  readonly everywhere?: boolean;
}

export const inGroup = (group: KeyGroup, keys: readonly Omit<Key, 'group'>[]): Key[] =>
  keys.map((key) => ({ ...key, group }));

/** One key for cues and for whatever else is in hand, which is seen only in Timing. */
export const inHand = (cues: () => void, others: () => void): Pick<Key, 'run' | 'ofHand'> => ({
  run: () => (store.getState().view.hand === 'cues' || !isIn('timing') ? cues() : others()),
  ofHand: true,
});

/** Things by their group, in the order in which groups first appear. */
export function byGroup<T extends { readonly group: unknown }>(
  all: readonly T[],
): Map<T['group'], T[]> {
  const groups = new Map<T['group'], T[]>();
  for (const each of all) groups.set(each.group, [...(groups.get(each.group) ?? []), each]);
  return groups;
}
