/** Bringing the text of a passage in from a file. */
import type { SheetFile } from '@cadence/core/formats/sheet/fromFile.ts';
import type { TravellingKind } from '@cadence/core/programme/programme.ts';
import { wordsWorker } from '../bringing/wordsWorker.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { offer } from '../desk/offer.tsx';
import { say, messageOf } from '../desk/say.ts';
import { passageNow } from './now.ts';
import { travel } from './travel.ts';

/** So many remarks on a file are told; the rest is counted. */
const TOLD = 4;

/** What a file says that a sheet cannot hold or that was not understood, in sentences. */
function toldOf(warnings: SheetFile['warnings']): string {
  const told = warnings.slice(0, TOLD).map(({ message }) => ` ${message}`);
  const left = warnings.length - told.length;
  return told.join('') + (left > 0 ? ` And ${plural(left, 'more warning')}.` : '');
}

/** Takes the text of a file for the passage in hand, in one step; what was not understood is said. */
export async function bringInSheet(file: File): Promise<void> {
  try {
    const { text, warnings } = await wordsWorker().sheet(file, file.name);
    if (!passageNow()) await travel.add('roll');
    const passage = passageNow();
    if (!passage) return;
    travel.change(travel.setSheet(text, `Bring in ${file.name}`));
    if (passage.sheet.trim() === '') say.note(`${file.name} was brought in.${toldOf(warnings)}`);
    else
      offer(
        `${file.name} replaced the text of “${passage.title}”.${toldOf(warnings)}`,
        `Restore that and make a new ${passage.kind}`,
        () => {
          travel.take(passage.id);
          // Whatever was done with the text since is kept: it may be what was wanted after all.
          if (passageNow()?.sheet === text)
            travel.change(travel.setSheet(passage.sheet, 'Restore the text'));
          void travel.add(passage.kind, { sheet: text });
        },
      );
  } catch (error) {
    say.problem(`${file.name} was not brought in: ${messageOf(error)}`);
  }
}

/**
 * Makes a roll or a crawl of the text of a file.
 *
 * @throws Unreadable where there is no text in it
 */
export async function makeOfSheet(file: File, kind: TravellingKind): Promise<void> {
  const { text, warnings } = await wordsWorker().sheet(file, file.name);
  await travel.add(kind, { sheet: text });
  say.note(`A ${kind} was made of ${file.name}.${toldOf(warnings)}`);
}
