/** A weaver from the files that ship: for those who have the dictionary loaded with it, some megabytes. */
import { dictionary } from 'cmu-pronouncing-dictionary';
import { gunzipSync } from 'fflate';
import { acousticModelOf } from './acousticModel.ts';
import { languageNamed } from './languages/languages.ts';
import { letterToSoundOf } from './letterToSound.ts';
import { songWeightsOf } from './song.ts';
import { Weaver } from './weaver.ts';

/** The files in `acoustic/`, as they lie there. */
export interface WeavingFiles {
  readonly model: Uint8Array;
  readonly spelling: Uint8Array;
  readonly song: Uint8Array;
}

/** @param read  gives a file of `acoustic/` */
export async function weavingFiles(
  read: (name: string) => Promise<Uint8Array>,
): Promise<WeavingFiles> {
  const [model, spelling, song] = await Promise.all([
    read('english.gz'),
    read('spelling.gz'),
    read('song.gz'),
  ]);
  return { model, spelling, song };
}

/** @param language  BCP 47, such as "en-GB" or "it" */
export const openWeaver = ({ model, spelling, song }: WeavingFiles, language: string): Weaver =>
  new Weaver(
    acousticModelOf(gunzipSync(model)),
    languageNamed(language, {
      dictionary,
      letterToSound: letterToSoundOf(gunzipSync(spelling)),
    }),
    songWeightsOf(gunzipSync(song)),
  );
