/** How paragraphs and letters of a DOCX are set by its styles (ECMA-376, part 1, 17.7), as far as a sheet asks. */
import type { Stand } from '../../text/sheet/sheet.ts';
import { readXml, type XmlElement } from '../xml.ts';

/** What is set by a style, or by a paragraph itself. */
export interface SetBy {
  /** In points. */
  readonly size?: number | undefined;
  readonly stand?: Stand | undefined;
  /** Whether text in it is not shown. */
  readonly isHidden?: boolean;
}

/** Points of letters of which a file says nothing. */
const USUAL_POINTS = 10;

/** Where lines stand by the word of the format; undefined where they are justified or nothing is said. */
export const standOf = (alignment: string | null | undefined): Stand | undefined =>
  ({
    left: 'left' as const,
    start: 'left' as const,
    both: 'left' as const,
    center: 'centre' as const,
    right: 'right' as const,
    end: 'right' as const,
  })[alignment ?? ''];

const childrenOf = ({ children }: XmlElement): XmlElement[] =>
  children.filter((child): child is XmlElement => typeof child !== 'string');

function inside(element: XmlElement | undefined, ...path: string[]): XmlElement | undefined {
  let found = element;
  for (const name of path) found = found && childrenOf(found).find((child) => child.name === name);
  return found;
}

const valueOf = (element: XmlElement | undefined, attribute = 'val'): string | undefined =>
  element?.attributes.find(({ name }) => name === attribute)?.value;

/** Whether a property that is there is on, by its value (17.17.4, ST_OnOff). */
export const isOn = (value: string | undefined): boolean => !/^(?:0|false|off)$/.test(value ?? '');

const setBy = (element: XmlElement | undefined): SetBy => {
  const half = Number(valueOf(inside(element, 'rPr', 'sz')));
  const vanish = inside(element, 'rPr', 'vanish');
  return {
    size: half > 0 ? half / 2 : undefined,
    stand: standOf(valueOf(inside(element, 'pPr', 'jc'))),
    ...(vanish && { isHidden: isOn(valueOf(vanish)) }),
  };
};

/**
 * How a paragraph is set that has a style, by its id; one without has that of the document.
 *
 * @param source  the part `word/styles.xml`; empty where there is none
 */
export function readStyles(source: string): (style: string | null) => Required<SetBy> {
  const known = new Map<string, SetBy & { readonly basedOn: string | undefined }>();
  let usual: SetBy = {};
  let byDefault: string | undefined;
  if (source.trim() !== '') {
    const { root } = readXml(source);
    const defaults = inside(root, 'docDefaults');
    usual = {
      size: setBy(inside(defaults, 'rPrDefault')).size,
      stand: setBy(inside(defaults, 'pPrDefault')).stand,
    };
    for (const style of childrenOf(root)) {
      const id = style.name === 'style' ? valueOf(style, 'styleId') : undefined;
      if (id === undefined || known.has(id)) continue;
      known.set(id, { ...setBy(style), basedOn: valueOf(inside(style, 'basedOn')) });
      if (valueOf(style, 'type') === 'paragraph' && valueOf(style, 'default') === '1')
        byDefault ??= id;
    }
  }
  return (style) => {
    let { size, stand, isHidden } = {} as SetBy;
    const seen = new Set<string>();
    for (let id = style ?? byDefault; id !== undefined && !seen.has(id);) {
      seen.add(id);
      const found = known.get(id);
      size ??= found?.size;
      stand ??= found?.stand;
      isHidden ??= found?.isHidden;
      id = found?.basedOn;
    }
    return {
      size: size ?? usual.size ?? USUAL_POINTS,
      stand: stand ?? usual.stand,
      isHidden: isHidden ?? false,
    };
  };
}
