/**
 * What is being typed, laid by at every key in the browser's local storage: a page may be ended without a word, and
 * what has not rested yet would go with it. Whichever window opens the programme next takes it up.
 */
import type { Edit } from '@cadence/core/programme/change.ts';
import type { Step } from '@cadence/core/programme/history.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import { stepOf } from './programmeState.ts';

/** Names this window to the server and to other windows. */
export const clientId = crypto.randomUUID();

const PREFIX = 'typed';
/** What a window said last may come so many milliseconds after it is known to be gone. */
const ARRIVING = 100;
const shelfOf = (programme: Id): string => `${PREFIX} ${programme} ${clientId}`;

/** Held as long as this window lives: others can tell by it that it is gone. */
const lockOf = (client: string): string => `window ${client}`;
void navigator.locks.request(lockOf(clientId), () => new Promise(() => undefined));

/** What is longer takes so long to write down, in characters, that the page shows the key first. */
const LONG = 50_000;
let long = false;
let later = false;

let programme: Id = '';
/** What is being typed now. */
let typed: Step | undefined;
/** What became a step of the programme and has not been put anywhere else yet. */
let kept: readonly Step[] = [];

function put(): void {
  later = false;
  const steps = typed ? [...kept, typed] : kept;
  try {
    const text = steps.length > 0 ? JSON.stringify(steps) : '';
    long = text.length > LONG;
    if (text !== '') localStorage.setItem(shelfOf(programme), text);
    else localStorage.removeItem(shelfOf(programme));
  } catch {
    // There is no room for so much; it is kept when typing rests.
  }
}

/** Lays by what keeping the typing would come to; an edit that changes nothing takes it away. */
export function layBy(id: Id, { name, changes }: Edit): void {
  if (id !== programme) {
    // What was typed in another programme was handed on when that was closed.
    localStorage.removeItem(shelfOf(programme));
    kept = [];
    programme = id;
  }
  typed = changes.length > 0 ? stepOf({ name, changes }, typed && { id: typed.id }) : undefined;
  if (!long) put();
  else if (!later) {
    later = true;
    // The key is seen before.
    requestAnimationFrame(() => setTimeout(put));
  }
}

/**
 * What is being typed is kept now. Gives the id that its step must have, so that it counts once wherever it is found;
 * undefined where nothing was laid by.
 */
export function takeUp(): { readonly id: Id } | undefined {
  if (!typed) return undefined;
  const { id } = typed;
  kept = [...kept, typed];
  typed = undefined;
  return { id };
}

/** Steps that are safe elsewhere, among them all that were kept before now; the answer is called when they are. */
export function handedOn(): () => void {
  const now = new Set(kept);
  return () => {
    if (now.size === 0) return;
    kept = kept.filter((step) => !now.has(step));
    put();
  };
}

/**
 * Gives what windows left behind that were ended while something was typed in them, as soon as they are gone; until
 * the answer is called.
 */
export function whenLeftBehind(id: Id, take: (steps: readonly Step[]) => void): () => void {
  const ended = new AbortController();
  const watched = new Set<string>([clientId]);
  const watch = (key: string | null) => {
    const [kind, of, client] = (key ?? '').split(' ');
    if (kind !== PREFIX || of !== id || client === undefined || watched.has(client)) return;
    watched.add(client);
    const given = navigator.locks.request(lockOf(client), { signal: ended.signal }, async () => {
      await new Promise((done) => setTimeout(done, ARRIVING));
      watched.delete(client);
      const text = localStorage.getItem(key ?? '');
      if (text === null || ended.signal.aborted) return;
      localStorage.removeItem(key ?? '');
      take(JSON.parse(text) as Step[]);
    });
    given.catch(() => undefined);
  };
  for (const key of Object.keys(localStorage)) watch(key);
  const told = ({ key, newValue }: StorageEvent) => {
    if (newValue !== null) watch(key);
  };
  window.addEventListener('storage', told);
  return () => {
    ended.abort();
    window.removeEventListener('storage', told);
  };
}
