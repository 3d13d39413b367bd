/**
 * The shelf of fonts for on-screen text that ships with the application.
 *
 * Every face is an ordinary TTF file of an npm package under the SIL Open Font Licence or Apache
 * Licence; the build copies them, and their licences, beside the application.
 */

/** A file with one face of a family. */
export interface ShelfFace {
  readonly file: string;
  readonly bold: boolean;
  readonly italic: boolean;
}

export interface ShelfFamily {
  readonly family: string;
  /** The npm package that holds the files. */
  readonly source: string;
  /** `style` families are offered to the editor; `lending` ones only lend glyphs. */
  readonly use: 'style' | 'lending';
  readonly faces: readonly ShelfFace[];
}

const face = (file: string, bold = false, italic = false): ShelfFace => ({ file, bold, italic });

export const SHELF: readonly ShelfFamily[] = [
  {
    family: 'Noto Sans',
    source: '@expo-google-fonts/noto-sans',
    use: 'style',
    faces: [
      face('600SemiBold/NotoSans_600SemiBold.ttf'),
      face('600SemiBold_Italic/NotoSans_600SemiBold_Italic.ttf', false, true),
      face('800ExtraBold/NotoSans_800ExtraBold.ttf', true),
      face('800ExtraBold_Italic/NotoSans_800ExtraBold_Italic.ttf', true, true),
    ],
  },
  {
    family: 'Barlow Condensed',
    source: '@expo-google-fonts/barlow-condensed',
    use: 'style',
    faces: [
      face('500Medium/BarlowCondensed_500Medium.ttf'),
      face('500Medium_Italic/BarlowCondensed_500Medium_Italic.ttf', false, true),
      face('700Bold/BarlowCondensed_700Bold.ttf', true),
      face('700Bold_Italic/BarlowCondensed_700Bold_Italic.ttf', true, true),
    ],
  },
  {
    family: 'Roboto Slab',
    source: '@expo-google-fonts/roboto-slab',
    use: 'style',
    faces: [
      face('500Medium/RobotoSlab_500Medium.ttf'),
      face('800ExtraBold/RobotoSlab_800ExtraBold.ttf', true),
    ],
  },
  {
    family: 'Noto Sans Arabic',
    source: '@expo-google-fonts/noto-sans-arabic',
    use: 'lending',
    faces: [face('600SemiBold/NotoSansArabic_600SemiBold.ttf')],
  },
  {
    family: 'Noto Sans Devanagari',
    source: '@expo-google-fonts/noto-sans-devanagari',
    use: 'lending',
    faces: [face('600SemiBold/NotoSansDevanagari_600SemiBold.ttf')],
  },
  {
    family: 'Noto Sans Hebrew',
    source: '@expo-google-fonts/noto-sans-hebrew',
    use: 'lending',
    faces: [face('600SemiBold/NotoSansHebrew_600SemiBold.ttf')],
  },
];

/** The families that an editor can choose. */
export const STYLE_FAMILIES: readonly string[] = SHELF.filter((each) => each.use === 'style').map(
  (each) => each.family,
);

/** Names a face of the shelf; also the path at which it is served. */
export const shelfPath = (family: ShelfFamily, of: ShelfFace): string =>
  `${family.source.split('/').at(-1)}/${of.file.split('/').at(-1)}`;
