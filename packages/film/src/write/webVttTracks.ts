/**
 * WebVTT in WebM, as WebM has it ("WebVTT in WebM", W3C and the WebM project: codec `D_WEBVTT/SUBTITLES`; a block holds the
 * name of its cue, its settings and its text, a line each). The writer of containers has only what Matroska calls
 * `S_TEXT/WEBVTT`, which fewer programs read.
 */
import type { Sink } from './store.ts';

const CODEC_ID = 0x86;
const CODEC_PRIVATE = [0x63, 0xa2] as const;
const VOID = 0xec;
const ascii = (letters: string): number[] => [...letters].map((letter) => letter.charCodeAt(0));
const WRITTEN = ascii('S_TEXT/WEBVTT');
const WANTED = ascii('D_WEBVTT/SUBTITLES');
/** The settings of a cue that has none: WebVTT's own default. */
const NO_SETTINGS = 'align:center';

/** A WebVTT file whose cues have their name and their settings as the first two lines of their text. */
export const withHeads = (text: string): string =>
  text
    .split(/\n{2,}/)
    .map((block) => {
      const [, name = '', times, settings = '', body] =
        /^(?:(.*)\n)?(\S+ --> \S+)(?: (.*))?\n([^]*)$/.exec(block) ?? [];
      if (times === undefined || body === undefined) return block;
      return `${times}\n${name || '-'}\n${settings || NO_SETTINGS}\n${body}`;
    })
    .join('\n\n');

/** Changes how tracks of WebVTT are called in the bytes of their entries; nothing moves. */
export function renamed(data: Uint8Array): Uint8Array {
  const wanted = [CODEC_ID, 0x80 | WRITTEN.length, ...WRITTEN];
  let changed: Uint8Array | undefined;
  for (let at = data.indexOf(CODEC_ID); at >= 0; at = data.indexOf(CODEC_ID, at + 1)) {
    if (!wanted.every((byte, place) => data[at + place] === byte)) continue;
    const after = at + wanted.length;
    // The head of the file follows, which WebM does not have; its room is what the longer name takes.
    const size = (data[after + 2] ?? 0) & 0x7f;
    if (data[after] !== CODEC_PRIVATE[0] || data[after + 1] !== CODEC_PRIVATE[1]) continue;
    const room = wanted.length + 3 + size;
    const bytes = [CODEC_ID, 0x80 | WANTED.length, ...WANTED];
    const rest = room - bytes.length - 2;
    changed ??= data.slice();
    changed.set([...bytes, VOID, 0x80 | rest, ...new Array<number>(rest).fill(0)], at);
  }
  return changed ?? data;
}

/** A sink that renames tracks of WebVTT in what is written to another one. */
export function renaming(sink: Sink): Sink {
  const writer = sink.getWriter();
  return new WritableStream({
    write: (chunk) =>
      writer.write({ ...chunk, data: renamed(chunk.data) as Uint8Array<ArrayBuffer> }),
    close: () => writer.close(),
    abort: (reason) => writer.abort(reason),
  });
}
