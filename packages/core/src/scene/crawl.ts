/** How a crawl stands: its items one after the other on one line, with something between them. */
import type { CrawlLook } from '../programme/passage.ts';
import type { ReadSheet } from '../text/sheet/sheet.ts';
import { shapedLine } from './shapedLines.ts';
import type { TextShaper } from './shaper.ts';

/** An item of a crawl, the line of the sheet on which it stands, and whether it is never left out. */
export interface CrawlItem {
  readonly text: string;
  readonly line: number;
  readonly stays: boolean;
}

/** An item where it stands, in pixels from the beginning of the crawl. */
export interface PlacedItem extends CrawlItem {
  readonly from: number;
  readonly width: number;
}

/** Every line of a sheet that says something is an item. */
export const itemsOf = ({ parts }: Pick<ReadSheet, 'parts'>): CrawlItem[] =>
  parts.flatMap((part): CrawlItem[] => {
    const { stays } = part;
    switch (part.kind) {
      case 'title':
      case 'heading':
      case 'text':
        return [{ text: part.text, line: part.line, stays }];
      case 'row': {
        const text = [part.role, part.names.map((name) => name.text).join(', ')]
          .filter((each) => each !== '')
          .join(': ');
        return [{ text, line: part.line, stays: stays || part.names.some((name) => name.stays) }];
      }
      case 'columns':
        return part.names.map((name) => ({ ...name, stays: name.stays ?? false }));
      default:
        return [];
    }
  });

/** Lays items out on one line. */
export function layOutCrawl(
  items: readonly CrawlItem[],
  look: Pick<CrawlLook, 'family' | 'size' | 'between'>,
  shaper: TextShaper,
): {
  readonly width: number;
  readonly between: number;
  readonly items: readonly PlacedItem[];
  /** Characters that no family has. */
  readonly missing: readonly string[];
} {
  const shapedBetween = shapedLine(look.between, look, shaper);
  const between = shapedBetween.width;
  const missing = new Set(shapedBetween.missing);
  let from = 0;
  const placed = items.map((item, at) => {
    if (at > 0) from += between;
    const shaped = shapedLine(item.text, look, shaper);
    const { width } = shaped;
    for (const character of shaped.missing) missing.add(character);
    const own = { ...item, from, width };
    from += width;
    return own;
  });
  return { width: from, between, items: placed, missing: [...missing] };
}
