/** Writing plain text, to be read or proof-read: one paragraph a caption. */
import { isBlank, plainText } from '../../text/lines.ts';
import { Losses, type Caption, type Written } from '../captions.ts';

/** Writes the words of captions; their times, styles, speakers and places cannot be held and are counted. */
export function writeText(captions: readonly Caption[]): Written {
  const losses = new Losses();
  const written = captions.filter(({ text }) => !isBlank(text));
  losses.count('empty cue', captions.length - written.length);
  losses.count('times', written.length);
  const paragraphs = written.map((caption) => {
    losses.countLooks(caption);
    losses.countRest(caption);
    return `${plainText(caption.text)}\n`;
  });
  return { text: paragraphs.join('\n'), lost: losses.list() };
}
