/** The keys, what each does, and where it counts. One table serves the keyboard and the list of keys. */
import { CUE_KEYS } from './keys/cueKeys.ts';
import { inGroup, isIn, type Key } from './keys/key.ts';
import { MARK_KEYS } from './keys/markKeys.ts';
import { PLAY_KEYS } from './keys/playKeys.ts';
import { STRAND_KEYS } from './keys/strandKeys.ts';
import { TYPING_KEYS } from './keys/typingKeys.ts';
import { VIEW_KEYS } from './keys/viewKeys.ts';
import { openHelp } from './KeysHelp.tsx';
import { isTaken, nameOfStroke } from '../kit/keyStrokes.ts';

/** Whether what a key works on can be seen: nothing else is changed by it. */
const isSeen = ({ group, ofHand }: Key): boolean => {
  if (group === 'The pulse') return isIn('timing');
  return !isIn('material') || !(ofHand ?? group === 'Cues, or what is in hand');
};

export const KEYS: readonly Key[] = [
  ...PLAY_KEYS,
  ...CUE_KEYS,
  ...MARK_KEYS,
  ...STRAND_KEYS,
  ...VIEW_KEYS,
  ...inGroup('Programme', [{ keys: '?', does: 'This list', run: showKeys }]),
  ...TYPING_KEYS,
];

/** Shows the list of keys. */
export function showKeys(): void {
  openHelp(KEYS);
}

const byName = new Map(KEYS.filter((key) => key.run).map((key) => [key.keys, key]));

/** Runs what a key stroke stands for. */
export function answerKey(event: KeyboardEvent): void {
  if (event.defaultPrevented || isTaken(event)) return;
  const key = byName.get(nameOfStroke(event));
  if (!key?.run || !isSeen(key)) return;
  event.preventDefault();
  key.run();
}
