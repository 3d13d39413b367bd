/** A weaver from the files that ship: for those who have the dictionary loaded with it, some megabytes. */
import { dictionary } from 'cmu-pronouncing-dictionary';
import { gunzipSync } from 'fflate';
import { acousticModelOf } from './acousticModel.ts';
import { languageNamed } from './languages/languages.ts';
import { letterToSoundOf } from './letterToSound.ts';
import { Weaver } from './weaver.ts';

/** The files in `acoustic/`, as they lie there. */
export interface WeavingFiles {
  readonly model: Uint8Array;
  readonly spelling: Uint8Array;
}

/** @param language  BCP 47, such as "en-GB" or "it" */
export const openWeaver = ({ model, spelling }: WeavingFiles, language: string): Weaver =>
  new Weaver(
    acousticModelOf(gunzipSync(model)),
    languageNamed(language, {
      dictionary,
      letterToSound: letterToSoundOf(gunzipSync(spelling)),
    }),
  );
