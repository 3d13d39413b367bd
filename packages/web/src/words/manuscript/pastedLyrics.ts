/** Lyrics that are pasted: names of parts and counts such as “x2” can be written out as they are sung. */
import { asSung, sungAs } from '@cadence/core/formats/sheet/songSheet.ts';
import { plainText, type Line } from '@cadence/core/text/lines.ts';

/** Fewer lines are no lyrics. */
const FEWEST = 3;

export interface PastedLyrics {
  /** The lines as they are sung. */
  readonly lines: readonly Line[];
  /** What changes, in a few words. */
  readonly changes: string;
}

/** Whether a blank line stands before each line that is not blank. */
function blanksBefore(plain: string): boolean[] {
  let blank = false;
  return plain.split(/\r\n?|\n|\u2028|\u2029/).flatMap((line) => {
    const was = blank;
    blank = line.trim() === '';
    return blank ? [] : [was];
  });
}

/**
 * @param lines  what was pasted, without blank lines
 * @param plain  the same as plain text
 * @returns      undefined where it is sung as it is written, and where only names of parts are there
 */
export function pastedLyrics(lines: readonly Line[], plain: string): PastedLyrics | undefined {
  if (lines.length < FEWEST) return undefined;
  const blanks = blanksBefore(plain);
  const isKnown = blanks.length === lines.length;
  const sung = asSung(
    lines.map((line, at) => ({
      ...{ kind: 'line', text: plainText([line]), spans: [line] },
      ...(isKnown && blanks[at] && { afterBlank: true }),
    })),
  );
  const changes = sungAs(sung);
  if (changes === '' || sung.blocks.length === 0) return undefined;
  return {
    lines: sung.blocks.map(({ text = '', spans }) => spans?.[0] ?? [{ text }]),
    changes,
  };
}
