/** Writes parts of a film in a helper thread. */
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { makePart, makeSound, type Job, type SoundFound } from '@cadence/film/write/film.ts';
import type { FilmOrder, Part } from '@cadence/film/write/order.ts';
import { Stage } from '@cadence/paint/stage.ts';
import { keptAlive, withCodecs } from './codecs.ts';
import { folderStore } from './folderStore.ts';
import { soundsIn } from './material.ts';
import { stageFiles, surfaces } from './stageFiles.ts';

/**
 * Has the collector run. What codecs and canvases hold lies outside its heap: it sees no reason to run, and encoders of
 * parts that are done would stay.
 */
const collect: () => void = (() => {
  setFlagsFromString('--expose-gc');
  return runInNewContext('gc') as () => void;
})();

/** How many frames are drawn between two runs. */
const FRAMES_UNCOLLECTED = 25;

/** What a thread is given to work on. */
export interface FilmWork {
  readonly programme: Programme;
  readonly order: FilmOrder;
  /** Where the files of materials are. */
  readonly material: string;
  /** Where the parts are kept. */
  readonly parts: string;
}

export interface FilmHelper {
  begin(work: FilmWork): Promise<void>;
  /** @param report  told after each frame */
  part(part: Part, report: () => void): Promise<void>;
  /** @param report  told which share of it is done */
  sound(report: (share: number) => void): Promise<SoundFound | undefined>;
  /** Lets go of all codecs: a thread must not end before. */
  end(): Promise<void>;
}

export function filmHelper(): FilmHelper {
  let job: Job | undefined;
  const begun = (): Job => {
    if (!job) throw new Error('There is no film to write.');
    return job;
  };
  return {
    async begin({ programme, order, material, parts }) {
      await withCodecs();
      const stage = new Stage(stageFiles(material));
      const open = await soundsIn(material, programme);
      job = { programme, order, store: folderStore(parts), easel: { stage, surfaces }, open };
    },
    async part(part, report) {
      await keptAlive(() =>
        makePart(begun(), part, (frame) => {
          report();
          if (frame % FRAMES_UNCOLLECTED === 0) collect();
        }),
      );
      collect();
    },
    sound: (report) => keptAlive(() => makeSound(begun(), report)),
    end: () => keptAlive(async () => job?.easel.stage.close()),
  };
}
