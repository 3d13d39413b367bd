/** How far two words are from each other as they are written. */

/**
 * How many letters must be put in, taken out, changed or swapped with the next to make one word another, by
 * Damerau's restricted distance; `most + 1` where it is more than `most`.
 */
export function editDistance(a: string, b: string, most: number): number {
  const [x, y] = [[...a], [...b]];
  if (Math.abs(x.length - y.length) > most) return most + 1;
  let before: number[] = [];
  let last = y.map((_, at) => at);
  last.push(y.length);
  for (let i = 1; i <= x.length; i++) {
    const row = [i];
    for (let j = 1; j <= y.length; j++) {
      const same = x[i - 1] === y[j - 1] ? 0 : 1;
      let least = Math.min((last[j] ?? 0) + 1, (row[j - 1] ?? 0) + 1, (last[j - 1] ?? 0) + same);
      if (i > 1 && j > 1 && x[i - 1] === y[j - 2] && x[i - 2] === y[j - 1])
        least = Math.min(least, (before[j - 2] ?? 0) + 1);
      row.push(least);
    }
    [before, last] = [last, row];
  }
  return Math.min(last[y.length] ?? 0, most + 1);
}

/** The nearest of some words, where one is near enough to have been meant: a third of its letters away at most. */
export function nearestWord(word: string, among: readonly string[]): string | undefined {
  const near = among
    .map((other) => {
      const most = Math.max(1, Math.floor(Math.max(other.length, word.length) / 3));
      return { other, most, distance: editDistance(word, other, most) };
    })
    .filter(({ distance, most }) => distance <= most)
    .sort((a, b) => a.distance - b.distance);
  return near[0]?.other;
}
