/** The names on cards that were made from a list: they are in no dictionary, and none is at fault for it. */
import { cuesInOrder } from '../programme/order.ts';
import type { Programme, Strand } from '../programme/programme.ts';
import { plainText, type Line } from '../text/lines.ts';

/** A line of so many words, each with a capital, is a name; short words between may be without ("de", "van"). */
const MOST_WORDS = 5;
const PARTICLE = 3;

/** The name on a line: what follows a role, which has a colour of its own, or all of it where it looks like one. */
function nameOn(line: Line): string {
  const [first, ...rest] = line;
  if (first?.colour !== undefined && rest.length > 0) return plainText([rest]);
  const text = plainText([line]);
  const words = text.trim().split(/\s+/);
  const capitals = words.filter((word) => /^\p{Lu}\p{M}*[\p{Ll}'’.]/u.test(word));
  const others = words.filter((word) => !capitals.includes(word));
  const isName =
    words.length <= MOST_WORDS &&
    capitals.length >= 2 &&
    others.every((word) => word.length <= PARTICLE && !/^\p{Lu}{2}/u.test(word));
  return isName ? text : '';
}

/** The words of all names on strands of cards. */
export function cardNames(programme: Programme, strands: readonly Strand[]): ReadonlySet<string> {
  const lines = strands
    .filter(({ kind }) => kind === 'card')
    .flatMap(({ id }) => cuesInOrder(programme, id).flatMap(({ text }) => text));
  return new Set(lines.flatMap((line) => nameOn(line).match(/[\p{L}\p{M}'’]+/gu) ?? []));
}
