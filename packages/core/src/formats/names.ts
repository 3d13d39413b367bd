/** The formats that captions are written in, by name: all that a list of them shows. */

export const CAPTION_FORMATS = [
  { name: 'srt', title: 'SRT', mediaType: 'application/x-subrip' },
  { name: 'vtt', title: 'WebVTT', mediaType: 'text/vtt' },
  { name: 'ttml', title: 'TTML, IMSC 1.1 text', mediaType: 'application/ttml+xml' },
  { name: 'stl', title: 'EBU STL', mediaType: 'application/octet-stream' },
  { name: 'lrc', title: 'LRC', mediaType: 'text/plain' },
  { name: 'csv', title: 'CSV', mediaType: 'text/csv' },
  { name: 'otio', title: 'OpenTimelineIO, as markers', mediaType: 'application/json' },
  { name: 'txt', title: 'Plain text', mediaType: 'text/plain' },
  { name: 'md', title: 'Markdown', mediaType: 'text/markdown' },
] as const;

export type FormatName = (typeof CAPTION_FORMATS)[number]['name'];
