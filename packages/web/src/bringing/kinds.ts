/** The kinds of file that a dialog to choose files offers. */

export const SOUND_AND_FILM =
  'audio/*,video/*,.wav,.mp3,.flac,.ogg,.opus,.m4a,.aac,.mp4,.mov,.webm,.mkv';
export const CAPTIONS = '.srt,.vtt,.ttml,.dfxp,.xml,.stl,.lrc,.csv,.tsv';
export const WORDS = `${CAPTIONS},.txt,.md,.rtf,.docx,.rss,.atom,.otio,.mid,.midi,.kar`;
export const MEDIA = `${SOUND_AND_FILM},image/png,image/jpeg,image/webp,image/svg+xml,.ttf,.otf,.woff2`;
