/** The syllables of a written word: how many are said, and where they part. */
import { syllable } from 'syllable';

/** How many syllables a word has when it is said, one at least (by the rules of English). */
export const syllablesIn = (word: string): number => Math.max(1, syllable(word));

/** Letters that are one sound together and are not parted. */
const TOGETHER = /^(?:[cgpst]h|[bcdfgkpt][lr]|ck|qu|s[cklmnptw]|wh|tw)/i;

/**
 * The parts of a word, as many as it has syllables. They part between the vowels that are said: before a consonant, or
 * before the last ones that begin a syllable together ("Sker-ry-moor", "no-thing").
 */
export function syllablesOf(word: string): string[] {
  const count = syllablesIn(word);
  const vowels = [...word.matchAll(/[aeiouyàâäåæéèêëíìîïóòôöøúùûüœ]+/giu)].filter(
    // A "y" that a vowel follows begins a syllable, it is none.
    ({ 0: text, index }) =>
      !(index === 0 && /^y.?$/i.test(text) && word.length > 2 && text.length > 1),
  );
  const said = [...vowels];
  // Where there are more groups of vowels than are said, an "e" is mute: at the end, or where two words grew together.
  while (said.length > Math.max(1, count)) {
    const mute = said.findLastIndex(({ 0: text }, at) => at > 0 && /^e$/i.test(text));
    said.splice(mute > 0 ? mute : -1, 1);
  }
  const cuts = said.slice(1).map(({ index }, at) => {
    const end = (said[at]?.index ?? 0) + (said[at]?.[0].length ?? 0);
    const between = word.slice(end, index);
    if (between.length <= 1 || TOGETHER.test(between)) return end;
    return TOGETHER.test(between.slice(1)) || between.length === 2 ? end + 1 : index - 1;
  });
  // Vowels that are said apart ("idea") part within their group, from the last one on.
  for (let at = said.length - 1; at >= 0 && cuts.length + 1 < count; at--) {
    const { 0: text = '', index = 0 } = said[at] ?? {};
    if (text.length > 1) cuts.push(index + 1);
  }
  const edges = [0, ...new Set(cuts.sort((a, b) => a - b)), word.length];
  return edges.slice(1).map((to, at) => word.slice(edges[at], to));
}
