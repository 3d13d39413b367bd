/** Writes parts of a film in a helper thread. */
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { FilePathSource } from 'mediabunny';
import {
  join,
  makePart,
  makeSound,
  writeWav,
  type Job,
  type SoundFound,
} from '@cadence/film/write/film.ts';
import { faultsOf } from '@cadence/film/write/join.ts';
import type { FilmOrder, Part, Writing } from '@cadence/film/write/order.ts';
import { writeStills } from '@cadence/film/write/pictures.ts';
import { foresee } from '@cadence/film/write/foresee.ts';
import { Stage } from '@cadence/paint/stage.ts';
import { keptAlive, withCodecs } from './codecs.ts';
import { fillWhole, folderStore } from './folderStore.ts';
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

/** What is written in one piece: still pictures or a sound. */
export interface PieceWork {
  readonly programme: Programme;
  readonly writing: Exclude<Writing, { kind: 'film' }>;
  readonly material: string;
}

export interface FilmHelper {
  /** Tries what will be drawn. @throws CannotWrite where the film would not be as it should */
  begin(work: FilmWork): Promise<void>;
  /** @param report  told after each frame */
  part(part: Part, report: () => void): Promise<void>;
  /** @param report  told which share of it is done */
  sound(report: (share: number) => void): Promise<SoundFound | undefined>;
  /**
   * Joins the parts into a file, which is there whole or not at all.
   *
   * @param report  told how many frames are in it
   * @returns what is wrong with the file
   */
  join(out: string, report: (frames: number) => void): Promise<string[]>;
  /** Writes still pictures or a sound into a file. @param report  told which share of it is done */
  piece(
    work: PieceWork,
    out: string,
    report: (share: number) => void,
  ): Promise<SoundFound | undefined>;
  /** Lets go of all codecs: a thread must not end before. */
  end(): Promise<void>;
}

/** Joins the parts of a film into a file, and reads it back. @returns what is wrong with it */
export async function joinInto(
  out: string,
  { programme, order, parts }: FilmWork,
  report: (frames: number) => void,
): Promise<string[]> {
  const job = { programme, order, store: folderStore(parts) };
  await fillWhole(out, (sink) => join(job, sink, report));
  return order.container === 'zip' ? [] : faultsOf(new FilePathSource(out), order);
}

/** How many pieces of sound are written between two runs. */
const PIECES_UNCOLLECTED = 100;

/** Has the collector run between pieces of sound. */
function collecting(report: (share: number) => void): (share: number) => void {
  let pieces = 0;
  return (share) => {
    report(share);
    if (++pieces % PIECES_UNCOLLECTED === 0) collect();
  };
}

/** Has frames counted and the collector run between them. */
const watched = (report: (frame: number) => void) => (frame: number) => {
  report(frame);
  if (frame % FRAMES_UNCOLLECTED === 0) collect();
};

export function filmHelper(): FilmHelper {
  let work: FilmWork | undefined;
  let job: Job | undefined;
  const stages: Stage[] = [];
  const begun = (): Job => {
    if (!job) throw new Error('There is no film to write.');
    return job;
  };
  const stageOver = async (material: string): Promise<Stage> => {
    await withCodecs();
    const stage = new Stage(stageFiles(material));
    stages.push(stage);
    return stage;
  };
  return {
    begin: (of) =>
      keptAlive(async () => {
        const { programme, order, material, parts } = of;
        const stage = await stageOver(material);
        const open = await soundsIn(material, programme);
        await foresee(programme, { kind: 'film', order }, stage);
        work = of;
        job = { programme, order, store: folderStore(parts), easel: { stage, surfaces }, open };
      }),
    async part(part, report) {
      await keptAlive(() => makePart(begun(), part, watched(report)));
      collect();
    },
    sound: (report) => keptAlive(() => makeSound(begun(), collecting(report))),
    join(out, report) {
      if (!work) throw new Error('There is no film to join.');
      return joinInto(out, work, report);
    },
    piece: ({ programme, writing: { kind, order }, material }, out, report) =>
      keptAlive(async () => {
        let sound: SoundFound | undefined;
        const stage = await stageOver(material);
        if (kind === 'sound') {
          const open = await soundsIn(material, programme);
          await fillWhole(out, async (sink) => {
            sound = await writeWav(programme, order, open, sink, collecting(report));
          });
          return sound;
        }
        await foresee(programme, { kind, order }, stage);
        const told = watched((place) => report((place + 1) / order.stills.length));
        await fillWhole(out, (sink) =>
          writeStills(programme, order, { stage, surfaces }, sink, told),
        );
        return undefined;
      }),
    end: () =>
      keptAlive(async () => {
        for (const stage of stages) await stage.close();
      }),
  };
}
