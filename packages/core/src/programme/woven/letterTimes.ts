/** When the letters of a word are said: by its syllables, by the notes that are held in it, and evenly between. */
import type { Hold, WordTime } from '../programme.ts';

/** A letter that is said after a share of the word's time. */
interface Edge {
  /** In UTF-16 units from the start of the word. */
  readonly from: number;
  readonly share: number;
}

type Parted = Pick<WordTime, 'syllables' | 'held'>;

function shareBetween(edges: readonly Edge[], letter: number): number {
  const next = edges.findIndex(({ from }) => from > letter);
  const [before, after] = [edges[next - 1], edges[next]];
  if (!before || !after) return next < 0 ? 1 : 0;
  const within = (letter - before.from) / (after.from - before.from);
  return before.share + within * (after.share - before.share);
}

/** The edges of the syllables of a word, and of the word. */
const syllableEdges = ({ syllables }: Parted, text: string): Edge[] => [
  { from: 0, share: 0 },
  ...(syllables ?? []),
  { from: text.length, share: 1 },
];

const VOWEL = /^[aeiouy]$/i;
const isVowel = (letter: string): boolean =>
  VOWEL.test(letter.normalize('NFD').replace(/\p{M}/gu, ''));

/**
 * On which letter of a word each of its notes is held, in turn: the vowel that is written nearest to where it begins, or,
 * in a word that is written without vowels, that letter.
 *
 * @returns  the letter in UTF-16 units from the start of the word, and the shares of its time
 */
export function heldLetters(word: Parted, text: string): (Hold & { readonly letter: number })[] {
  const letters = Array.from({ length: text.length }, (_, letter) => letter);
  const vowels = letters.filter((letter) => isVowel(text.charAt(letter)));
  const edges = syllableEdges(word, text);
  let free = -1;
  return (word.held ?? []).flatMap((hold) => {
    const on = (vowels.length > 0 ? vowels : letters).filter((letter) => letter > free);
    const far = (letter: number) => Math.abs(shareBetween(edges, letter) - hold.from);
    const [first] = on;
    if (first === undefined) return [];
    const letter = on.reduce((best, each) => (far(each) < far(best) ? each : best), first);
    free = letter;
    return [{ ...hold, letter }];
  });
}

/**
 * The share of a word's time after which a letter of it is said. A vowel that is held lasts as long as it is held; where
 * the word is split, the editor has said when its syllables are.
 */
export function shareAt(word: Parted, text: string, letter: number): number {
  const edges = syllableEdges(word, text);
  if (word.syllables) return shareBetween(edges, letter);
  for (const hold of heldLetters(word, text)) {
    edges.splice(
      edges.length - 1,
      0,
      { from: hold.letter, share: hold.from },
      { from: hold.letter + 1, share: hold.to },
    );
  }
  return shareBetween(edges, letter);
}
