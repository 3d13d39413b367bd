/** The keys, what each does, and where it counts. One table serves the keyboard, the list of keys and the commands. */
import { isIn } from '../desk/places.ts';
import { selectedCues } from '../desk/inHand.ts';
import { openNow, store } from '../desk/store.ts';
import { CUE_KEYS } from './keys/cueKeys.ts';
import { inGroup, type Key } from './keys/key.ts';
import { MARK_KEYS } from './keys/markKeys.ts';
import { PLACE_KEYS } from './keys/placeKeys.ts';
import { PLAY_KEYS } from './keys/playKeys.ts';
import { STRAND_KEYS } from './keys/strandKeys.ts';
import { PLACES_OWN_KEYS } from './keys/placesOwnKeys.ts';
import { VIEW_KEYS } from './keys/viewKeys.ts';
import { showCommands } from './commands.ts';
import { loadWithRetry } from '../kit/loadWithRetry.ts';
import { isInWindow, isTaken, nameOfStroke } from '../kit/keyStrokes.ts';

/** Why a key does nothing where the editor is, and as a sentence; undefined where it works. */
function whyNotSeen({ group, ofHand, place }: Key): string | undefined {
  if (place !== undefined && !isIn(place))
    return `Go to ${place === 'timing' ? 'Timing' : 'Travel'} first.`;
  const ofCues = ofHand ?? group === 'Cues, or what is in hand';
  return ofCues && isIn('material') ? 'Go to Words or Timing first.' : undefined;
}

/** Why a command cannot be done now, as a sentence; undefined where it can. */
export function whyNot(key: Key): string | undefined {
  const seen = whyNotSeen(key);
  if (seen !== undefined || !key.ofCue) return seen;
  const selected = selectedCues(openNow().programme, store.getState().view);
  return selected.length === 0 ? 'Select a cue first.' : undefined;
}

export const KEYS: readonly Key[] = [
  ...PLACE_KEYS,
  ...PLAY_KEYS,
  ...CUE_KEYS,
  ...MARK_KEYS,
  ...STRAND_KEYS,
  ...VIEW_KEYS,
  ...inGroup('Programme', [
    { keys: 'Ctrl K', does: 'Find a command by its name', everywhere: true, run: showCommands },
    { keys: '?', does: 'List all keys', run: showKeys },
  ]),
  ...PLACES_OWN_KEYS,
];

/** Shows the list of keys. */
export function showKeys(): void {
  void loadWithRetry(() => import('./KeysHelp.tsx')).then(({ openHelp }) => openHelp(KEYS));
}

const byName = new Map(KEYS.filter((key) => key.run).map((key) => [key.keys, key]));

/** Runs what a key stroke stands for. */
export function answerKey(event: KeyboardEvent): void {
  if (event.defaultPrevented) return;
  const key = byName.get(nameOfStroke(event));
  const taken = key?.everywhere ? isInWindow(event) : isTaken(event);
  if (!key?.run || taken || whyNotSeen(key) !== undefined) return;
  event.preventDefault();
  key.run();
}
