/**
 * Italics, bold and underline while a sheet is sorted into blocks: they are carried in its text as characters
 * of the private use area, so that what looks for tabs and capitals need not know of them.
 */
import { tidyLine, type Line, type SpanStyle } from '../../text/lines.ts';
import { starred } from '../../text/emphasis.ts';
import type { Block } from './blocks.ts';

const FIRST = 0xe000;
const names = ['italic', 'bold', 'underline'] as const;
type Carried = (typeof names)[number];

/** On and off for each of the styles. */
const carriers = /[\ue000-\ue005]/g;
const signOf = (spanStyle: Carried, isOn: boolean): string =>
  String.fromCharCode(FIRST + 2 * names.indexOf(spanStyle) + (isOn ? 0 : 1));

/** Text that carries its style. */
export function carrying(text: string, spanStyle: SpanStyle): string {
  const clean = text.replace(carriers, '');
  if (clean.trim() === '') return clean;
  return names.reduce(
    (inner, name) => (spanStyle[name] ? signOf(name, true) + inner + signOf(name, false) : inner),
    clean,
  );
}

const without = (text: string): string => text.replace(carriers, '').trim();

/** The lines of a text that carries its styles. */
function styledLines(text: string): Line[] {
  const on = new Map<Carried, number>();
  return text.split('\n').map((line) =>
    tidyLine(
      line.split(/([\ue000-\ue005])/).map((part, at) => {
        if (at % 2 === 1) {
          const code = part.charCodeAt(0) - FIRST;
          const name = names[code >> 1] as Carried;
          on.set(name, (on.get(name) ?? 0) + (code % 2 === 0 ? 1 : -1));
          return { text: '' };
        }
        const spanStyle = Object.fromEntries(
          names.filter((name) => (on.get(name) ?? 0) > 0).map((name) => [name, true]),
        );
        return { ...spanStyle, text: part };
      }),
    ),
  );
}

/** Blocks with the styles that their text carries as spans. */
export const withSpans = (blocks: readonly Block[]): Block[] =>
  blocks.map(({ text, role, names: all, ...block }) => {
    const spans = text === undefined ? [] : styledLines(text.trim());
    const styled = spans.flat().some((span) => names.some((name) => span[name]));
    return {
      ...block,
      ...(text !== undefined && { text: without(text) }),
      ...(styled && { spans }),
      ...(role !== undefined && { role: without(role) }),
      ...(all && { names: all.map(without) }),
      ...starredRow(role, all),
    };
  });

function starredRow(role = '', names: readonly string[] = []): Pick<Block, 'starred'> {
  if (![role, ...names].some((text) => text.search(carriers) >= 0)) return {};
  const inStars = (text: string): string => styledLines(text.trim()).map(starred).join(' ');
  return { starred: { role: inStars(role), names: names.map(inStars) } };
}
