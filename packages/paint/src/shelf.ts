/**
 * The shelf of fonts for on-screen text that ships with the application.
 *
 * Every face is a TTF or WOFF2 file of an npm package under the SIL Open Font Licence or Apache
 * Licence; the build copies them as TTF, and their licences, beside the application.
 */

/** A file with one face of a family, or with all its weights and widths. */
export interface ShelfFace {
  readonly file: string;
  readonly bold: boolean;
  readonly italic: boolean;
  /** Which letters it has, where the family has other files for others. */
  readonly part?: string;
}

/** What a family is for, as it is told to an editor. */
export const FAMILY_KINDS = [
  'sans',
  'serif',
  'condensed',
  'wide',
  'slab',
  'typewriter',
  'hand',
  'display',
] as const;
export type FamilyKind = (typeof FAMILY_KINDS)[number];

export interface ShelfFamily {
  readonly family: string;
  /** The npm package that holds the files. */
  readonly source: string;
  /** The kind of a family that is offered to the editor; undefined where it only lends glyphs. */
  readonly kind?: FamilyKind;
  /** What it lends glyphs of to others that lack them; undefined where it lends none. */
  readonly lends?: RegExp;
  /** Of families with Han characters: the letters of a line whose Han characters are to have its forms. */
  readonly forms?: RegExp;
  readonly faces: readonly ShelfFace[];
}

/** Names of weights, as they stand in the names of files. */
const WEIGHTS = {
  400: 'Regular',
  500: 'Medium',
  600: 'SemiBold',
  700: 'Bold',
  800: 'ExtraBold',
  900: 'Black',
} as const;
type Weight = keyof typeof WEIGHTS;

interface Made {
  /** The weight that is ordinary on screen, and the bold one where there is one. */
  readonly weights: readonly [regular: Weight, bold?: Weight];
  readonly hasItalics?: boolean;
}

function family(
  name: string,
  use: Pick<ShelfFamily, 'kind' | 'lends'>,
  { weights, hasItalics = false }: Made,
): ShelfFamily {
  const slug = name.toLowerCase().replace(/ /g, '-');
  const letters = name.replace(/ /g, '');
  const faces = weights.flatMap((weight = 400, at) =>
    (hasItalics ? [false, true] : [false]).map((italic): ShelfFace => {
      const cut = `${weight}${WEIGHTS[weight]}${italic ? '_Italic' : ''}`;
      return { file: `${cut}/${letters}_${cut}.ttf`, bold: at === 1, italic };
    }),
  );
  return { family: name, source: `@expo-google-fonts/${slug}`, ...use, faces };
}

const styled = (kind: FamilyKind, name: string, weights: Made['weights'], hasItalics = false) =>
  family(name, { kind }, { weights, hasItalics });
const lending = (name: string, lends: RegExp) => family(name, { lends }, { weights: [600] });
/** Families with thousands of characters: they are fetched where a text needs one, or asks for one. */
const han = (name: string, forms: RegExp): ShelfFamily => ({
  ...family(name, { kind: 'sans', lends: forms }, { weights: [600] }),
  forms,
});

/** The letters of the files of a variable family. */
const LATIN = ['latin', 'latin-ext', 'vietnamese'] as const;

/** A family every weight and width of which is in one file for each range of letters. */
function variable(
  kind: FamilyKind,
  name: string,
  parts: readonly string[],
  hasItalics = false,
): ShelfFamily {
  const slug = name.toLowerCase().replace(/ /g, '-');
  const faces = parts.flatMap((part) =>
    (hasItalics ? [false, true] : [false]).map((italic): ShelfFace => ({
      file: `files/${slug}-${part}-wdth-${italic ? 'italic' : 'normal'}.woff2`,
      bold: false,
      italic,
      part,
    })),
  );
  return { family: name, source: `@fontsource-variable/${slug}`, kind, faces };
}

export const SHELF: readonly ShelfFamily[] = [
  // What most texts are set in, and what lends letters to all others, stands first.
  family('Noto Sans', { kind: 'sans', lends: /./u }, { weights: [600, 800], hasItalics: true }),
  lending('Noto Sans Arabic', /\p{Script=Arabic}/u),
  lending('Noto Sans Devanagari', /\p{Script=Devanagari}/u),
  lending('Noto Sans Hebrew', /\p{Script=Hebrew}/u),
  lending('Noto Sans Thai', /\p{Script=Thai}/u),
  han('Noto Sans JP', /[\p{Script=Hiragana}\p{Script=Katakana}]/u),
  han('Noto Sans KR', /\p{Script=Hangul}/u),
  // Their punctuation too, so that a line of it alone does not depend on which of them is loaded.
  han('Noto Sans SC', /[\p{Script=Han}\u3000-\u303f\uff00-\uffef]/u),
  variable('sans', 'Archivo', LATIN, true),
  variable('sans', 'Roboto Flex', [...LATIN, 'greek', 'cyrillic', 'cyrillic-ext']),
  styled('sans', 'Figtree', [500, 800], true),
  styled('sans', 'IBM Plex Sans', [500, 700], true),
  styled('sans', 'League Spartan', [600, 800]),
  styled('sans', 'Lexend', [500, 700]),
  styled('sans', 'Nunito Sans', [600, 800], true),
  styled('sans', 'Source Sans 3', [600, 800], true),
  styled('sans', 'Work Sans', [500, 700], true),
  styled('serif', 'Bitter', [500, 700], true),
  styled('serif', 'EB Garamond', [500, 700], true),
  styled('serif', 'Fraunces', [500, 800], true),
  styled('serif', 'Libre Baskerville', [400, 700], true),
  styled('serif', 'Lora', [500, 700], true),
  styled('serif', 'Source Serif 4', [500, 700], true),
  styled('condensed', 'Archivo Narrow', [500, 700], true),
  styled('condensed', 'Barlow Condensed', [500, 700], true),
  styled('condensed', 'Oswald', [500, 700]),
  styled('condensed', 'Roboto Condensed', [500, 800], true),
  styled('wide', 'Krona One', [400]),
  styled('wide', 'Michroma', [400]),
  styled('slab', 'Arvo', [400, 700], true),
  styled('slab', 'Roboto Slab', [500, 800]),
  styled('slab', 'Zilla Slab', [500, 700], true),
  styled('typewriter', 'Courier Prime', [400, 700], true),
  styled('typewriter', 'JetBrains Mono', [500, 800], true),
  styled('typewriter', 'Special Elite', [400]),
  styled('hand', 'Caveat', [600, 700]),
  styled('hand', 'Kalam', [400, 700]),
  styled('display', 'Abril Fatface', [400]),
  styled('display', 'Alfa Slab One', [400]),
  styled('display', 'Anton', [400]),
  variable('display', 'Anybody', LATIN, true),
  styled('display', 'Bebas Neue', [400]),
];

/** The families that an editor can choose. */
export const STYLE_FAMILIES: readonly string[] = SHELF.filter((each) => each.kind).map(
  (each) => each.family,
);

/** Whether a family of the shelf lends nothing: what has no letter of its own there is lent by others. */
export const lendsNothing = (name: string): boolean =>
  SHELF.some((each) => each.family === name && !each.lends);

/** The family whose forms the Han characters of a line are to have: by what else is in it, and else the Chinese ones. */
export const formsFor = (text: string): string | undefined =>
  SHELF.find(({ forms }) => forms?.test(text))?.family;

/** Names a face of the shelf; also the path at which it is served, unpacked. */
export const shelfPath = ({ source }: ShelfFamily, of: ShelfFace): string =>
  `${source.split('/').at(-1)}/${of.file.split('/').at(-1)?.replace('.woff2', '.ttf')}`;
