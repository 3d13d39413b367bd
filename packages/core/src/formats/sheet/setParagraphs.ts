/** Paragraphs as a word processor sets them, by the sizes of their letters and where they stand. */
import type { Measure, Stand } from '../../text/sheet/sheet.ts';
import { separatorIn, type Separator } from '../../text/sheet/separator.ts';
import type { Paragraph } from '../../text/sheet/sheetLines.ts';
import type { Warning } from '../captions.ts';

/** A paragraph, and how it differs from most others in a way that a roll has too. */
export interface LaidParagraph extends Paragraph {
  readonly measure?: Exclude<Measure, 'usual'>;
  readonly stand?: Exclude<Stand, 'centre'>;
}

export interface SetParagraph {
  readonly text: string;
  /** What a style says that it is; then its size says nothing. */
  readonly kind?: 'title' | 'heading';
  /** Of its largest letter, in any unit; 0 where it has none. */
  readonly size: number;
  /** Where its lines stand; undefined where the file says nothing of it. */
  readonly stand?: Stand | undefined;
}

/** The size that most letters have. */
function usualSize(paragraphs: readonly SetParagraph[]): number {
  const lengths = new Map<number, number>();
  for (const { text, size } of paragraphs)
    lengths.set(size, (lengths.get(size) ?? 0) + text.trim().length);
  const [usual = 0] = [...lengths].sort((a, b) => b[1] - a[1])[0] ?? [];
  return usual;
}

/**
 * Paragraphs in larger letters than most text are headings, the largest and first of them the title; rows and what is in
 * smaller letters are larger and smaller lines. What a roll cannot hold is named
 * in a warning.
 *
 * Lines stand in the middle of a roll unless the file says that they stand on the right; those on the left do where most
 * are set otherwise, since a word processor sets all that nobody thought of on the left.
 */
export function laidParagraphs(paragraphs: readonly SetParagraph[]): {
  readonly paragraphs: LaidParagraph[];
  /** What separates roles from names in the file as a whole, where it is found. */
  readonly separator: Separator | undefined;
  readonly warnings: Warning[];
} {
  const written = paragraphs.filter(({ text }) => text.trim() !== '');
  const sized = written.filter(({ kind }) => kind === undefined);
  const usual = usualSize(sized);
  const largest = sized.reduce((most, { size }) => Math.max(most, size), 0);
  const sizes = new Set(sized.map(({ size }) => size));
  const separator = separatorIn(written.map(({ text }) => text));
  const isRow = (text: string): boolean => text.includes('\t') || !!separator?.pattern.test(text);
  const lines = sized.filter(({ text }) => !isRow(text));
  const moved = lines.filter(({ stand }) => stand === 'centre' || stand === 'right');
  const meant = moved.length > lines.length / 2;
  const rowsAside = written.some(({ text, stand }) => isRow(text) && stand === 'right');
  let titled = written.some(({ kind }) => kind === 'title');
  const laid = paragraphs.map(({ text, size, stand = 'left', kind: said }, at): LaidParagraph => {
    const afterBlank = at === 0 || (paragraphs[at - 1]?.text ?? '').trim() === '';
    if (text.trim() === '') return { text, afterBlank };
    const aside = stand === 'right' || (stand === 'left' && meant);
    const common = { text, afterBlank, ...(aside && { stand }) };
    if (said) return { ...common, kind: said };
    if (size < usual) return { ...common, measure: 'smaller' };
    if (size === usual) return common;
    if (isRow(text)) return { ...common, measure: 'larger' };
    const kind = size === largest && !titled ? 'title' : 'heading';
    titled ||= kind === 'title';
    return { ...common, kind };
  });
  const leftOut = (message: string): Warning => ({ kind: 'left out', line: 0, message });
  return {
    paragraphs: laid,
    separator,
    warnings: [
      ...(sizes.size > 1
        ? [
            leftOut(
              `Text in ${sizes.size} sizes became headings, normal, larger and smaller lines.`,
            ),
          ]
        : []),
      ...(rowsAside ? [leftOut('Right-aligned rows take the alignment of the roll.')] : []),
    ],
  };
}
