/** What the list of programmes tells of each one. */
import type { Ticks } from '@cadence/core/time/ticks.ts';
import { STRAND_KINDS, type Programme } from '@cadence/core/programme/programme.ts';
import type { Summary } from '@cadence/core/programme/wire.ts';
import { isBlank, plainText } from '@cadence/core/text/lines.ts';
import { readSheet } from '@cadence/core/text/sheet/sheet.ts';

/** So many letters of its text are told of a programme. */
const TOLD = 80;

/** The first words that are seen: of the first cue with text, or of the first line of a sheet. */
function firstWords(programme: Programme): string {
  const { cues, passages } = programme;
  const [first] = Object.values(cues)
    .filter(({ text, passage }) => !isBlank(text) || passage)
    .sort((a, b) => a.start - b.start);
  const { parts } = readSheet(
    passages[first?.passage ?? '']?.sheet ?? Object.values(passages)[0]?.sheet ?? '',
  );
  const [said = ''] = parts.flatMap((part) =>
    part.kind === 'title' || part.kind === 'heading' || part.kind === 'text'
      ? [part.text]
      : part.kind === 'row'
        ? [part.role]
        : [],
  );
  const words = first && !isBlank(first.text) ? plainText(first.text) : said;
  return words.slice(0, TOLD);
}

export function summarise(programme: Programme): Summary {
  const { facts, materials, pieces, cues, strands } = programme;
  const all = Object.values(cues).filter(({ passage }) => !passage);
  return {
    length: facts.length,
    frame: facts.frame,
    frameRate: facts.frameRate,
    materials: Object.keys(materials).length,
    pieces: Object.keys(pieces).length,
    cues: all.length,
    written: all.filter((cue) => !isBlank(cue.text)).length,
    still: facts.picture === null ? null : (materials[facts.picture]?.hash ?? null),
    image: materials[facts.backdrop.image ?? '']?.hash ?? null,
    backdrop: facts.backdrop.colour,
    words: firstWords(programme),
    kinds: STRAND_KINDS.filter((kind) =>
      Object.values(cues).some(({ strand }) => strands[strand]?.kind === kind),
    ),
  };
}

/** What is shown of a programme whose summary cannot be read. */
export const UNKNOWN_SUMMARY: Summary = {
  length: 0 as Ticks,
  frame: { width: 1920, height: 1080 },
  frameRate: { num: 25, den: 1, dropFrame: false },
  materials: 0,
  pieces: 0,
  cues: 0,
  written: 0,
  still: null,
  image: null,
  backdrop: '#20303a',
};
