/** Forgetting what a shaper's fonts gave, after fonts have been added to it. */
import { forgetLayouts } from './layout.ts';
import { forgetPlaces } from './rollItems.ts';
import { forgetLines } from './shapedLines.ts';
import type { TextShaper } from './shaper.ts';
import { forgetCrawls } from './travelling.ts';

export function forgetShaped(shaper: TextShaper): void {
  for (const forget of [forgetLayouts, forgetPlaces, forgetLines, forgetCrawls]) forget(shaper);
}
