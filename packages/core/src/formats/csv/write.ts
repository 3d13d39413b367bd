/** Writing cues as CSV after RFC 4180, with a heading and times in seconds. */
import Papa from 'papaparse';
import { plainText } from '../../text/lines.ts';
import { toSeconds, type Ticks } from '../../time/ticks.ts';
import { Losses, type Caption, type Written } from '../captions.ts';

/** Seconds to a millionth, without needless noughts. */
const seconds = (time: Ticks): string => String(Number(toSeconds(time).toFixed(6)));

/**
 * Writes captions as a table of start, end and text, with speaker and id where any caption has one. Styles,
 * places, times of words, and a second speaker in one caption cannot be held and are counted.
 */
export function writeCsv(captions: readonly Caption[]): Written {
  const losses = new Losses();
  const speakers = captions.map(({ text }) => [
    ...new Set(text.flat().flatMap(({ speaker }) => speaker ?? [])),
  ]);
  const spoken = speakers.some(({ length }) => length > 0);
  const named = captions.some(({ id }) => id !== undefined);
  const fields = ['start', 'end', 'text', ...(spoken ? ['speaker'] : []), ...(named ? ['id'] : [])];
  const data = captions.map((caption, at) => {
    losses.countLooks(caption);
    losses.count('word times', Number((caption.words?.length ?? 0) > 0));
    losses.count('second speaker', Number((speakers[at]?.length ?? 0) > 1));
    return [
      seconds(caption.start),
      seconds(caption.end),
      plainText(caption.text),
      ...(spoken ? [speakers[at]?.[0] ?? ''] : []),
      ...(named ? [caption.id ?? ''] : []),
    ];
  });
  return { text: `${Papa.unparse({ fields, data })}\r\n`, lost: losses.list() };
}
