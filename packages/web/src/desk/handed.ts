/** Files that wait for a programme to be opened that was made for them. */

let waiting: { readonly programme: string; readonly files: readonly File[] } | undefined;

export function handOver(programme: string, files: readonly File[]): void {
  waiting = { programme, files };
}

/** The files that wait for a programme, once. */
export function takeHanded(programme: string): readonly File[] {
  if (waiting?.programme !== programme) return [];
  const { files } = waiting;
  waiting = undefined;
  return files;
}
