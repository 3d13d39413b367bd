/** Writing LRC, with times to a hundredth of a second. */
import { plainLine } from '../../text/lines.ts';
import { TICKS_PER_SECOND, type Ticks } from '../../time/ticks.ts';
import { Losses, type Caption, type CaptionWord, type Target, type Written } from '../captions.ts';

const HUNDREDTH = TICKS_PER_SECOND / 100;

const hundredths = (time: Ticks): number => Math.max(0, Math.round(time / HUNDREDTH));

/** Minutes, seconds and hundredths; minutes take the digits they need. */
function clock(time: Ticks): string {
  const whole = hundredths(time);
  const pad = (value: number) => String(value).padStart(2, '0');
  return `${pad(Math.floor(whole / 6000))}:${pad(Math.floor(whole / 100) % 60)}.${pad(whole % 100)}`;
}

/** What would be read as a time. */
const LIKE_A_STAMP = /[[<](?=[\d:.,]+[\]>])|^\[(?=[a-z#_-]+:)/gi;

/**
 * Writes captions as LRC, in order of time: a line of text with the time it begins, and `<…>` before each timed
 * word and after one that ends before the next begins. Two lines of one caption have the same time. With
 * `clearLines`, an empty line stands where the next caption does not follow at once; without, that end is counted as
 * lost, as are styles, speakers, places and ids, times that overlap and captions without text.
 */
export function writeLrc(
  captions: readonly Caption[],
  { clearLines = false }: Partial<Target> = {},
): Written {
  const losses = new Losses();
  losses.countOverlaps(captions);
  const inOrder = [...captions].sort((a, b) => a.start - b.start);
  const written = inOrder.flatMap((caption, at) => {
    losses.countLooks(caption);
    losses.count('speaker', Number(caption.text.flat().some(({ speaker }) => speaker)));
    losses.count('id', Number(caption.id !== undefined));
    const lines = caption.text.map(plainLine).filter((line) => line.trim() !== '');
    if (lines.length === 0) losses.count('empty caption');
    const start = `[${clock(caption.start)}]`;
    const words = [...(caption.words ?? [])];
    const texts = lines.map((line) => `${start}${stamped(line, words, losses)}`);
    const next = inOrder[at + 1];
    const ends = !next || hundredths(next.start) > hundredths(caption.end);
    if (!ends || lines.length === 0) return texts;
    if (clearLines) return [...texts, `[${clock(caption.end)}]`];
    losses.count('end time', Number(!endsWithWord(caption)));
    return texts;
  });
  return { text: written.map((line) => `${line}\n`).join(''), lost: losses.list() };
}

/** Whether the last word of a caption, whose end is written, ends with it. */
const endsWithWord = ({ words = [], end }: Caption): boolean => {
  const last = words.at(-1)?.end;
  return last !== undefined && hundredths(last) === hundredths(end);
};

/** A line with a time before each of its words that has one; takes those words. */
function stamped(line: string, words: CaptionWord[], losses: Losses): string {
  const plain = (text: string) =>
    text.replace(LIKE_A_STAMP, (mark) => {
      losses.count('text like a time');
      return mark === '[' ? '(' : '‹';
    });
  let [from, written] = [0, ''];
  let last: CaptionWord | undefined;
  for (let word = words[0]; word; word = words[0]) {
    const at = line.indexOf(word.text, from);
    if (at < 0) break;
    const gap = last?.end !== undefined && hundredths(last.end) < hundredths(word.start);
    const ends = gap && last?.end !== undefined ? `<${clock(last.end)}>` : '';
    written += `${ends}${plain(line.slice(from, at))}<${clock(word.start)}>${plain(word.text)}`;
    from = at + word.text.length;
    last = words.shift();
  }
  const rest = plain(line.slice(from));
  const end = last?.end !== undefined && rest.trim() === '' ? `<${clock(last.end)}>` : '';
  return written + rest + end;
}
