/** Writing WebVTT, after the W3C's "WebVTT: The Web Video Text Tracks Format". */
import type { Line, Span } from '../../text/lines.ts';
import { Losses, type Caption, type CaptionPlace, type Written } from '../captions.ts';
import { writeClock } from '../clock.ts';
import { writePercent } from '../percent.ts';
import { aroundWords, writeTags } from '../markup.ts';

/** The colours that WebVTT names as classes of its own. */
const classColours: Readonly<Record<string, string>> = {
  '#ffffff': 'white',
  '#00ff00': 'lime',
  '#00ffff': 'cyan',
  '#ff0000': 'red',
  '#ffff00': 'yellow',
  '#ff00ff': 'magenta',
  '#0000ff': 'blue',
  '#000000': 'black',
};

/**
 * Writes captions as WebVTT. Italics, bold, underline, speakers, places, word times and the eight
 * named colours are written; other colours cannot be held without a style sheet and are counted, and so are places beside
 * the frame, turned text and the size of letters.
 */
export function writeVtt(captions: readonly Caption[]): Written {
  const losses = new Losses();
  const blocks = captions.map((caption) => {
    const spans = caption.text.flat();
    losses.count('colour', spans.some((span) => span.colour && !classColours[span.colour]) ? 1 : 0);
    losses.countTurn(caption);
    const { at } = caption.place ?? {};
    losses.count(
      'place',
      Number(at !== undefined && (within(at.x) !== at.x || within(at.y) !== at.y)),
    );
    losses.count('size', Number(caption.size !== undefined));
    const times = `${writeClock(caption.start, '.')} --> ${writeClock(caption.end, '.')}`;
    const id = caption.id?.replace(/-->|\n/g, ' ').trim();
    const body = caption.words?.length ? stamped(caption) : caption.text.map(writeLine).join('\n');
    if (
      caption.words?.length &&
      spans.some(({ text: _text, ...spanStyle }) => Object.keys(spanStyle).length)
    )
      losses.count('style beside word times');
    // A blank line would end the cue.
    const text = body.replace(/^[ \t]*$/gm, '&nbsp;');
    return `${id ? `${id}\n` : ''}${times}${settings(caption.place)}\n${text}\n`;
  });
  return { text: ['WEBVTT\n', ...blocks].join('\n'), lost: losses.list() };
}

/** Percentages of WebVTT are of the frame alone. */
const within = (share: number): number => Math.min(1, Math.max(0, share));

const positions = { left: 'line-left', centre: 'center', right: 'line-right' } as const;
const heights = { top: 'start', middle: 'center', bottom: 'end' } as const;

function settings(place: CaptionPlace | undefined): string {
  if (!place) return '';
  const align = { left: ' align:left', centre: '', right: ' align:right' }[place.across];
  const size = place.width === undefined ? '' : ` size:${writePercent(place.width)}`;
  if (!place.at) {
    const line = { top: ' line:5%', middle: ' line:50%,center', bottom: '' }[place.down];
    return line + align + size;
  }
  const [x, y] = [place.at.x, place.at.y].map((share) => writePercent(within(share)));
  return ` position:${x},${positions[place.across]} line:${y},${heights[place.down]}${align}${size}`;
}

const escape = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

const writeLine = (line: Line): string => line.map(writeSpan).join('');

function writeSpan(span: Span): string {
  const base = writeTags(span, escape(span.text), ['underline', 'bold', 'italic']);
  const text = span.ruby ? `<ruby>${base}<rt>${escape(span.ruby)}</rt></ruby>` : base;
  const colour = classColours[span.colour ?? ''];
  const coloured = colour ? `<c.${colour}>${text}</c>` : text;
  return span.speaker ? `<v ${escape(span.speaker)}>${coloured}</v>` : coloured;
}

/** The text with a timestamp before each timed word that starts after the cue does. */
const stamped = (caption: Caption): string =>
  aroundWords(caption, escape, (text, { start }) => {
    const inside = start > caption.start && start < caption.end;
    return (inside ? `<${writeClock(start, '.')}>` : '') + escape(text);
  });
