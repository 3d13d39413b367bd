/**
 * How a word is said that no dictionary has: each letter by its neighbours, from the nearest to the furthest, as far
 * as the dictionary had words like it (IGTree; Daelemans, van den Bosch and Weijters, 1997).
 */

/** Neighbours of a letter in the order in which they are asked: how far after it, or before it. */
export const ASKED = [1, -1, 2, -2, 3, -3] as const;
export const LETTERS = "abcdefghijklmnopqrstuvwxyz'";
/** Beyond the ends of a word. */
export const EDGE = LETTERS.length;

/** A node of the tree: what to say where no branch fits, and branches by the next neighbour asked. */
export interface Sounding {
  readonly says: number;
  readonly branches?: ReadonlyMap<number, Sounding>;
}

export interface LetterToSound {
  /** What letters can be said as: names of phones, with spaces between. */
  readonly sounds: readonly string[];
  /** By letter. */
  readonly roots: readonly Sounding[];
}

/**
 * The tree in its packed form, after it was unzipped: the sounds as a line each, an empty line, then for each node
 * its sound (two bytes) and how many branches it has, each with the neighbour's letter and its own node.
 */
export function letterToSoundOf(bytes: Uint8Array): LetterToSound {
  const sounds: string[] = [];
  let at = 0;
  let line = '';
  for (;;) {
    const byte = bytes[at++] as number;
    if (byte !== 10) line += String.fromCharCode(byte);
    else if (line === '') break;
    else {
      sounds.push(line === '-' ? '' : line);
      line = '';
    }
  }
  const node = (): Sounding => {
    const says = (bytes[at] as number) + 256 * (bytes[at + 1] as number);
    const count = bytes[at + 2] as number;
    at += 3;
    if (count === 0) return { says };
    const branches = new Map<number, Sounding>();
    for (let branch = 0; branch < count; branch++) {
      const letter = bytes[at++] as number;
      branches.set(letter, node());
    }
    return { says, branches };
  };
  return { sounds, roots: Array.from(LETTERS, node) };
}

/** The letters of a word as numbers, accents left off and what is no letter left out. */
export const lettersOf = (word: string): number[] =>
  Array.from(word.normalize('NFD').toLowerCase(), (letter) => LETTERS.indexOf(letter)).filter(
    (letter) => letter >= 0,
  );

/** The names of the phones that a word is said with. */
export function soundedOut({ sounds, roots }: LetterToSound, word: string): string[] {
  const letters = lettersOf(word);
  return letters.flatMap((letter, at) => {
    let node = roots[letter] as Sounding;
    for (const step of ASKED) {
      const next = node.branches?.get(letters[at + step] ?? EDGE);
      if (!next) break;
      node = next;
    }
    return (sounds[node.says] ?? '').split(' ').filter((sound) => sound !== '');
  });
}
