/** The few tags that caption files write in their text, read into spans and written from them. */
import { plainText, tidyLine, type Line, type SpanStyle, type Span } from '../text/lines.ts';
import { trimSpaces } from '../text/spaces.ts';
import type { Caption, CaptionWord } from './captions.ts';

interface OpenTag {
  readonly name: string;
  readonly spanStyle: SpanStyle;
}

const colourName = /^(?:#[0-9a-f]{6}|[a-z]+)$/i;

/** The sixteen colour names of HTML 3.2 that caption files use, as `#rrggbb`. */
const namedColours: Readonly<Record<string, string>> = {
  white: '#ffffff',
  black: '#000000',
  red: '#ff0000',
  lime: '#00ff00',
  green: '#008000',
  blue: '#0000ff',
  yellow: '#ffff00',
  cyan: '#00ffff',
  aqua: '#00ffff',
  magenta: '#ff00ff',
  fuchsia: '#ff00ff',
  gray: '#808080',
  grey: '#808080',
  silver: '#c0c0c0',
  maroon: '#800000',
  navy: '#000080',
  olive: '#808000',
  purple: '#800080',
  teal: '#008080',
};

/** `#rrggbb` from a colour as a tag writes it; undefined where it is none. */
export function readColour(text: string): string | undefined {
  const value = text.trim().replace(/^["']|["']$/g, '');
  if (!colourName.test(value)) return undefined;
  return value.startsWith('#') ? value.toLowerCase() : namedColours[value.toLowerCase()];
}

/** Tags that count in each other. */
const DEEPEST = 64;

const plainManners: Readonly<Record<string, SpanStyle>> = {
  i: { italic: true },
  b: { bold: true },
  u: { underline: true },
};

/**
 * Collects text with opening and closing tags into lines of spans.
 *
 * A closing tag closes the innermost tag of its name; one that was never opened is text to nobody
 * and is left out.
 */
export class SpanWriter {
  readonly #lines: Span[][] = [[]];
  readonly #open: OpenTag[] = [];
  /** Of all tags that are open. */
  #spanStyle: SpanStyle = {};

  open(name: string, spanStyle: SpanStyle): void {
    // Deeper nesting is never written by hand: the file is damaged.
    if (this.#open.length >= DEEPEST) return;
    this.#open.push({ name, spanStyle });
    this.#spanStyle = { ...this.#spanStyle, ...spanStyle };
  }

  close(name: string): boolean {
    const at = this.#open.findLastIndex((tag) => tag.name === name);
    if (at < 0) return false;
    this.#open.splice(at, 1);
    this.#spanStyle = Object.assign({}, ...this.#open.map((tag) => tag.spanStyle)) as SpanStyle;
    return true;
  }

  text(text: string): void {
    const spanStyle = this.#spanStyle;
    text.split('\n').forEach((part, place) => {
      if (place > 0) this.#lines.push([]);
      this.#lines.at(-1)?.push({ ...spanStyle, text: part });
    });
  }

  /** A place in what was written, for {@link annotate}. */
  mark(): readonly [line: number, span: number] {
    return [this.#lines.length - 1, this.#lines.at(-1)?.length ?? 0];
  }

  /** Puts small text over all that was written since a place. */
  annotate([line, from]: readonly [line: number, span: number], ruby: string): void {
    const said = trimSpaces(ruby);
    if (said === '') return;
    for (let at = line; at < this.#lines.length; at++) {
      const spans = this.#lines[at] ?? [];
      this.#lines[at] = spans.map((span, place) =>
        at === line && place < from ? span : { ...span, ruby: said },
      );
    }
  }

  lines(): Line[] {
    return this.#lines.map(tidyLine);
  }
}

/** The style that a tag without attributes gives; undefined for a tag that is none of ours. */
export const mannerOfTag = (name: string): SpanStyle | undefined =>
  plainManners[name.toLowerCase()];

/** A span as text between its tags, each of `tags` that it needs. */
export function writeTags(
  span: Span,
  text: string,
  tags: readonly (keyof typeof tagNames)[],
): string {
  return tags.reduce((inner, spanStyle) => {
    const name = tagNames[spanStyle];
    return span[spanStyle] ? `<${name}>${inner}</${name}>` : inner;
  }, text);
}

const tagNames = { italic: 'i', bold: 'b', underline: 'u' } as const;

/**
 * The text of a caption with its timed words written by `word` and what stands between them by `between`;
 * words that do not stand in the text are passed over.
 */
export function aroundWords(
  { text, words = [] }: Caption,
  between: (text: string) => string,
  word: (text: string, timed: CaptionWord) => string,
): string {
  const plain = plainText(text);
  let from = 0;
  let written = '';
  for (const timed of words) {
    const at = plain.indexOf(timed.text, from);
    if (at < 0) continue;
    written += between(plain.slice(from, at)) + word(timed.text, timed);
    from = at + timed.text.length;
  }
  return written + between(plain.slice(from));
}
