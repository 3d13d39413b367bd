/** Writing Markdown: one paragraph a caption, with italics and bold. */
import { isBlank, type Line, type Span } from '../../text/lines.ts';
import { Losses, type Caption, type Written } from '../captions.ts';

/** Writes the words of captions with italics, bold and speakers; what else they have is counted. */
export function writeMarkdown(captions: readonly Caption[]): Written {
  const losses = new Losses();
  const written = captions.filter(({ text }) => !isBlank(text));
  losses.count('empty cue', captions.length - written.length);
  losses.count('times', written.length);
  const paragraphs = written.map((caption) => {
    const spans = caption.text.flat();
    losses.count('underline', Number(spans.some(({ underline }) => underline)));
    losses.count('colour', Number(spans.some(({ colour }) => colour)));
    losses.countRuby(spans);
    losses.count('place', Number(caption.place !== undefined));
    losses.count('word times', Number((caption.words?.length ?? 0) > 0));
    losses.count('id', Number(caption.id !== undefined));
    let speaker: string | undefined;
    const lines = caption.text.map((line: Line) =>
      line
        .map((span) => {
          const says = span.speaker !== undefined && span.speaker !== speaker;
          speaker = span.speaker;
          return (says ? `**${escape(span.speaker ?? '')}:** ` : '') + marked(span);
        })
        .join(''),
    );
    return `${lines.join('  \n')}\n`;
  });
  return { text: paragraphs.join('\n'), lost: losses.list() };
}

/** Text with what would be a mark of Markdown made plain. */
const escape = (text: string): string =>
  text
    .replace(/[\\`*_[\]<>~|&]/g, '\\$&')
    .replace(/^(\s*)([#+-])/, '$1\\$2')
    .replace(/^(\s*\d+)([.)])/, '$1\\$2');

function marked({ text, italic, bold }: Span): string {
  const mark = `${bold ? '**' : ''}${italic ? '*' : ''}`;
  const [, before = '', inner = '', after = ''] = /^(\s*)([\s\S]*?)(\s*)$/.exec(text) ?? [];
  if (mark === '' || inner === '') return escape(text);
  return before + mark + escape(inner) + [...mark].reverse().join('') + after;
}
