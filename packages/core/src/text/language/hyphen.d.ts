declare module 'hyphen' {
  /** Marks where words can be hyphenated, by the patterns of a language (Liang 1983, as TeX has them). */
  export default function createHyphenator(
    patterns: unknown,
    options: { readonly hyphenChar: string; readonly minWordLength: number },
  ): (text: string) => string;
}

declare module 'hyphen/patterns/*' {
  const patterns: unknown;
  export default patterns;
}
