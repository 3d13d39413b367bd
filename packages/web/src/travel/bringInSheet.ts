/** Bringing the text of a passage in from a file. */
import { wordsWorker } from '../bringing/wordsWorker.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { say, messageOf } from '../desk/say.ts';
import { passageNow } from './now.ts';
import { travel } from './travel.ts';

/** So many remarks on a file are told; the rest is counted. */
const TOLD = 4;

/** Takes the text of a file for the passage in hand, in one step; what was not understood is said. */
export async function bringInSheet(file: File): Promise<void> {
  try {
    const { text, warnings } = await wordsWorker().sheet(file, file.name);
    if (!passageNow()) await travel.add('roll');
    const passage = passageNow();
    if (!passage) return;
    travel.change(travel.setSheet(text, `Bring in ${file.name}`));
    const told = warnings.slice(0, TOLD).map(({ message }) => ` ${message}`);
    const left = warnings.length - told.length;
    const more = left > 0 ? ` And ${plural(left, 'more warning')}.` : '';
    const was = passage.sheet.trim() === '' ? '' : ' Ctrl Z restores the old text.';
    say.note(`${file.name} was brought in.${was}${told.join('')}${more}`);
  } catch (error) {
    say.problem(`${file.name} was not brought in: ${messageOf(error)}`);
  }
}
