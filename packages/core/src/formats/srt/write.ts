/** Writing SRT, with CRLF line ends and times to a thousandth of a second. */
import type { Line, Span } from '../../text/lines.ts';
import { Losses, type Caption, type CaptionPlace, type Target, type Written } from '../captions.ts';
import { writeClock } from '../clock.ts';
import { writeTags } from '../markup.ts';
import { TIME_LINE } from './timeLine.ts';

const pad = { left: 1, centre: 2, right: 3, bottom: 0, middle: 3, top: 6 } as const;

/**
 * Writes captions as SRT, numbered from 1 in the order given. Italics, bold, underline and colour are
 * written with the tags that players commonly read; positions only where `placeCodes` asks for them.
 * Speakers, ids, word times and other positions are counted as lost. A blank line inside a text would
 * end it, so it becomes a line with a no-break space.
 */
export function writeSrt(
  captions: readonly Caption[],
  { placeCodes = false }: Partial<Target> = {},
): Written {
  const losses = new Losses();
  const blocks = captions.map((caption, at) => {
    losses.count('speaker', caption.text.flat().some((span) => span.speaker) ? 1 : 0);
    losses.countRuby(caption.text.flat());
    losses.count('word times', caption.words?.length ? 1 : 0);
    losses.count('id', caption.id !== undefined && caption.id !== String(at + 1) ? 1 : 0);
    const code = placeTag(caption.place);
    const isFine = caption.place?.at !== undefined || caption.place?.width !== undefined;
    losses.count('place', Number(isFine || (!placeCodes && code !== '')));
    losses.countTurn(caption);
    losses.count('size', Number(caption.size !== undefined));
    const text = caption.text.map(writeLine).map((line) => (line.trim() === '' ? '\u00a0' : line));
    const times = `${writeClock(caption.start, ',')} --> ${writeClock(caption.end, ',')}`;
    return `${at + 1}\r\n${times}\r\n${placeCodes ? code : ''}${text.join('\r\n')}\r\n`;
  });
  return { text: blocks.join('\r\n'), lost: losses.list() };
}

function placeTag(place: CaptionPlace | undefined): string {
  if (!place || (place.across === 'centre' && place.down === 'bottom')) return '';
  return `{\\an${pad[place.down] + pad[place.across]}}`;
}

/** A line; one that would be read as a time line has a shorter arrow. */
function writeLine(line: Line): string {
  const text = line.map(writeSpan).join('');
  return TIME_LINE.test(text) ? text.replaceAll('-->', '→') : text;
}

function writeSpan(span: Span): string {
  const text = writeTags(span, span.text, ['underline', 'bold', 'italic']);
  return span.colour ? `<font color="${span.colour}">${text}</font>` : text;
}
