/** `weave PROGRAMME`, `bring` and `carry`: what the interface does, on a programme's own file. */
import { randomUUID } from 'node:crypto';
import { carrying } from '@cadence/core/conform/carrying.ts';
import { apply } from '@cadence/core/programme/record/apply.ts';
import { likeliestPlan } from '@cadence/core/programme/bringing.ts';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { conformCues } from '@cadence/core/programme/edits/words/conformCues.ts';
import { languageOf } from '@cadence/core/programme/edits/text/proof.ts';
import { addMaterial } from '@cadence/core/programme/edits/programme/setFacts.ts';
import { toWeave, weaveCues } from '@cadence/core/programme/edits/words/weaveCues.ts';
import { FILE_FORMAT } from '@cadence/core/programme/fileFormat.ts';
import { cuesInOrder, strandsInOrder } from '@cadence/core/programme/order.ts';
import {
  isTravelling,
  type Cue,
  type Material,
  type Programme,
  type Strand,
} from '@cadence/core/programme/programme.ts';
import { withTies } from '@cadence/core/programme/ties.ts';
import { stateOf } from '@cadence/core/programme/woven/wordState.ts';
import { weaveOrders } from '@cadence/core/programme/woven/weaveOrders.ts';
import { bandsOf, fileOf, soundMaterial } from '@cadence/node/material.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { weaveSound } from '@cadence/node/weave.ts';
import { readWords, type CaptionOptions } from './captions.ts';
import { WrongUsage } from './failure.ts';
import { pathOf, writeWhole } from './files.ts';
import { folderOf, readProgramme } from './programmeFile.ts';

export interface ProgrammeOptions extends CaptionOptions {
  readonly strand?: string | undefined;
  readonly material?: string | undefined;
  readonly language?: string | undefined;
}

/** The strand of a name, or the first that bears text. */
export function strandIn(programme: Programme, name: string | undefined): Strand {
  const written = strandsInOrder(programme).filter(({ kind }) => !isTravelling(kind));
  const found = name === undefined ? written[0] : written.find(({ title }) => title === name);
  if (found) return found;
  const titles = written.map(({ title }) => `“${title}”`).join(', ');
  throw new WrongUsage(`--strand takes the name of a strand: ${titles}.`);
}

/** The sound that a programme follows. */
function mainSound(programme: Programme, file: string): Material {
  const material = programme.materials[programme.facts.sound ?? ''];
  if (!material) throw new Unusable('silent', 'This programme has no sound.', file);
  return material;
}

/** Writes a programme that an edit was made of, with what is tied to what it moves. */
export async function keep(programme: Programme, edit: Edit, out: string): Promise<Programme> {
  const made = apply(programme, withTies(programme, edit).changes);
  await writeWhole(out, `${JSON.stringify({ format: FILE_FORMAT, programme: made })}\n`);
  return made;
}

/** The JSON of `weave PROGRAMME`. */
export async function weaveProgrammeCommand(
  file: string,
  out: string,
  options: ProgrammeOptions,
): Promise<object> {
  const programme = await readProgramme(file);
  const { id: strand } = strandIn(programme, options.strand);
  const material = mainSound(programme, file);
  const cues = cuesInOrder(programme, strand).map(({ id }) => id);
  const wanted = weaveOrders(programme, strand, cues, material.id);
  if (!wanted || wanted.orders.length === 0)
    throw new Unusable('no text', 'There are no words on this strand.', file);
  const path = await fileOf(folderOf(file, options.material), material);
  const language =
    options.language ?? (languageOf(programme) === 'none' ? 'und' : languageOf(programme));
  const { woven } = await weaveSound(path, language, wanted.orders);
  const edit = weaveCues(
    programme,
    toWeave(programme, strand, cues),
    woven.flatMap((words) => wanted.inProgramme(words)),
  );
  const made = await keep(programme, edit, out);
  const words = cuesInOrder(made, strand).flatMap((cue: Cue) => cue.words);
  const wordCount = wanted.orders.reduce((sum, order) => sum + order.words.length, 0);
  return {
    file: out,
    cues: cues.length,
    words: wordCount,
    doubtful: words.filter((word) => stateOf(word) === 'doubtful').length,
    notHeard: wordCount - words.length,
  };
}

/** The JSON of `bring`. */
export async function bringCommand(
  file: string,
  from: string,
  out: string,
  options: ProgrammeOptions,
): Promise<object> {
  const programme = await readProgramme(file);
  const { id: strand } = strandIn(programme, options.strand);
  const found = await readWords(from, options);
  const likeliest = likeliestPlan(programme, strand, found, randomUUID);
  if (!likeliest)
    throw new Unusable('no cues', 'Nothing in this file could become cues or marks.', from);
  const { choice, plan } = likeliest;
  await keep(programme, plan.edit, out);
  return {
    file: out,
    contents: choice.contents,
    place: choice.place,
    count: plan.count,
    ...(plan.edit.note !== undefined && { note: plan.edit.note }),
    ...(plan.sung && { asSung: plan.sung }),
    warnings: found.warnings,
  };
}

/** The JSON of `carry`. */
export async function carryCommand(
  file: string,
  sound: string,
  out: string,
  options: ProgrammeOptions,
): Promise<object> {
  const programme = await readProgramme(file);
  const old = mainSound(programme, file);
  const oldPath = await fileOf(folderOf(file, options.material), old);
  const fresh = await soundMaterial(pathOf(sound), randomUUID());
  const map = carrying(await bandsOf(oldPath), await bandsOf(pathOf(sound)));
  if (map.length === 0)
    throw new Unusable(
      'another',
      'Nothing of the programme’s sound is in this one: they are two recordings. Weave the words on it instead.',
      sound,
    );
  const added = addMaterial(programme, fresh);
  // The sound takes the place of the old one; adding it must not lay it beside that.
  const withFresh = apply(
    programme,
    added.changes.filter(({ entity }) => entity === 'material'),
  );
  const { edit, kept, notAsTheyWere, marksAtCuts, corrections } = conformCues(
    withFresh,
    old.id,
    fresh.id,
    map,
    randomUUID,
  );
  await keep(withFresh, edit, out);
  return {
    file: out,
    kept,
    notAsTheyWere: notAsTheyWere.map(({ cue, why }) => ({ cue: cue.id, why })),
    marksAtCuts,
    corrections,
  };
}
