/**
 * Function words of the languages whose sounds are woven: which of them cling to the word after them, and what language
 * a text is in.
 */

/** ISO 639-1. */
export const TEXT_LANGUAGES = ['en', 'fr', 'es', 'de', 'it'] as const;
export type TextLanguage = (typeof TEXT_LANGUAGES)[number];

interface FunctionWords {
  /** Words that a line must not end with: articles, prepositions, conjunctions, pronouns, titles. */
  readonly clinging: ReadonlySet<string>;
  /** Words that a line may well begin with. */
  readonly opening: ReadonlySet<string>;
}

const set = (words: string): ReadonlySet<string> => new Set(words.split(' '));

/** What each language's lines must not end with, and may well begin with. */
export const FUNCTION_WORDS: Readonly<Record<TextLanguage, FunctionWords>> = {
  en: {
    clinging: set(
      'a an the my your his her its our their this that these those each every no some any ' +
        'of in to at by for from with on into onto upon over under through between against about near ' +
        'behind beneath beyond without within toward towards across along around before after during until ' +
        'since than as like per via and or but nor so yet if because while when where who which whose not ' +
        'i you he she we they it is are was were be been am has have had do does did will would can could ' +
        'shall should may might must let very too more most less least mr mrs ms dr st prof',
    ),
    opening: set(
      'and or but nor so yet because while when where who which whose that if until since as than though ' +
        'although before after with without of in to at by for from on into over under through between',
    ),
  },
  fr: {
    clinging: set(
      'le la les un une des du de au aux mon ma mes ton ta tes son sa ses notre nos votre vos leur leurs ce ' +
        'cet cette ces chaque quelques dans sur sous avec pour sans par vers chez entre contre depuis pendant ' +
        'avant après jusque dès en à et ou mais ni car donc que qui dont où si comme quand lorsque je tu il elle ' +
        'on nous vous ils elles ne se me te est sont était a ont avait très plus moins trop mme mlle dr st',
    ),
    opening: set(
      'et ou mais ni car donc que qui dont où si comme quand lorsque puisque parce pendant depuis avant après avec ' +
        'sans dans sur sous pour par vers chez entre contre jusque de à',
    ),
  },
  es: {
    clinging: set(
      'el la los las lo un una unos unas mi mis tu tus su sus nuestro nuestra este esta estos estas ese esa cada ' +
        'del al de a en con por para sin sobre entre hasta desde hacia según contra durante y e o u pero ni que ' +
        'si como cuando donde quien cuyo porque aunque yo él ella nosotros ellos se me te le les nos no es son ' +
        'era fue ha han había muy más menos tan sr sra dr',
    ),
    opening: set(
      'y e o u pero ni que si como cuando donde quien porque aunque mientras de a en con por para sin sobre entre ' +
        'hasta desde hacia contra durante',
    ),
  },
  de: {
    clinging: set(
      'der die das dem den des ein eine einen einem einer eines mein meine dein sein seine ihr ihre unser unsere ' +
        'dieser diese dieses diesem diesen jeder jede jedes kein keine in im an am auf aus bei beim mit nach von ' +
        'vom vor zu zum zur über unter durch für gegen ohne um zwischen während seit bis und oder aber denn sondern ' +
        'dass weil wenn als ob wie wo wer ich du er sie es wir nicht ist sind war waren hat haben sehr mehr so hr fr dr',
    ),
    opening: set(
      'und oder aber denn sondern dass weil wenn als ob wie wo wer während bis in im an am auf aus bei mit nach von ' +
        'vor zu zum zur über unter durch für gegen ohne um zwischen seit',
    ),
  },
  it: {
    clinging: set(
      'il lo la i gli le un uno una di del dello della dei degli delle a al allo alla ai agli alle da dal dalla ' +
        'dai in nel nello nella nei nelle su sul sulla sui con per tra fra senza verso contro durante e ed o ma né ' +
        'che chi cui se come quando dove perché mio mia tuo tua suo sua nostro questa questo questi queste quel ' +
        'quella ogni io tu lui lei noi voi si mi ti ci non è sono era ha hanno molto più meno così sig dott',
    ),
    opening: set(
      'e ed o ma né che chi cui se come quando dove perché mentre di a da in con su per tra fra senza verso contro ' +
        'durante',
    ),
  },
};

/** So great a share of the words of a text are function words of its language, at least. */
const LEAST_SHARE = 0.15;

const wordPattern = /[\p{L}\p{M}]+/gu;

/**
 * The language of a text among those whose function words are known, by how many of its words are among them; undefined
 * where they are too few, or two languages have as many.
 */
export function languageOfText(text: string): TextLanguage | undefined {
  const words = text.toLocaleLowerCase('und').normalize('NFC').match(wordPattern) ?? [];
  const counted = TEXT_LANGUAGES.map((language) => ({
    language,
    count: words.filter((word) => FUNCTION_WORDS[language].clinging.has(word)).length,
  })).sort((a, b) => b.count - a.count);
  const [first, second] = counted;
  if (!first || first.count < LEAST_SHARE * words.length || first.count === second?.count)
    return undefined;
  return first.language;
}
