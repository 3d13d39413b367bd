/** Giving a file to the editor. */

/** A title as a file name that every system takes. */
export function fileName(title: string): string {
  const plain = title
    .replace(/[^\p{L}\p{N} _-]/gu, '')
    .trim()
    .replace(/\s+/g, '-')
    .toLowerCase();
  return plain || 'subtitles';
}

/** Has the browser keep what stands at `url`. */
export function save(url: string, name: string): void {
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
}

/** The same for a text. */
export function saveText(text: string, name: string, mediaType: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: `${mediaType};charset=utf-8` }));
  save(url, name);
  // The browser reads it after the click has been answered.
  setTimeout(() => {
    URL.revokeObjectURL(url);
  }, 10_000);
}
