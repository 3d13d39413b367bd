/** Writes what leaves: a film, still pictures or a sound. */
import { transfer } from 'comlink';
import { BlobSource, Input, UrlSource } from 'mediabunny';
import type { OpenSource } from '@cadence/core/mix/mixdown.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { containers } from '@cadence/film/containers.ts';
import { decoded } from '@cadence/film/decoded.ts';
import { join, makePart, makeSound, writeWav } from '@cadence/film/write/film.ts';
import { faultsOf } from '@cadence/film/write/join.ts';
import { SOUND_SHARE, type WritingProgress, type Written } from '@cadence/film/write/job.ts';
import { frameCount, partsOf, type FilmOrder, type Writing } from '@cadence/film/write/order.ts';
import type { Drawn } from '@cadence/film/write/easel.ts';
import { encoderFor } from '@cadence/film/write/parts.ts';
import { writeStills } from '@cadence/film/write/pictures.ts';
import { foresee } from '@cadence/film/write/foresee.ts';
import { Stage } from '@cadence/paint/stage.ts';
import { materialUrl } from '../sync/api.ts';
import { clearParts, resultOf, sinkOf, storeOf } from './partsHere.ts';
import { stageFiles, surfaces } from './stageFiles.ts';

/** How far it is, with a picture of it. */
export interface PicturedProgress extends WritingProgress {
  /** What was drawn last, small. */
  readonly picture?: ImageBitmap;
}

/** The least time between two reports, and between two pictures, in milliseconds. */
const REPORTING = 200;
const PICTURES = 600;
/** How wide the small picture is, in pixels. */
const SMALL = 200;

const opened =
  ({ materials }: Programme): OpenSource =>
  async (id) => {
    const material = materials[id];
    if (!material) return undefined;
    const source = new UrlSource(materialUrl(material.hash));
    const track = await new Input({ source, formats: containers }).getPrimaryAudioTrack();
    if (!track) return undefined;
    return { sampleRate: track.sampleRate, chunks: () => decoded(track) };
  };

export type Report = (progress: PicturedProgress) => void;

/** Tells how far it is, not too often. */
class Telling {
  readonly #report: Report;
  /** When the first frame was drawn. */
  #begun: number | undefined;
  #told = 0;
  #pictured = 0;
  #frames = 0;

  constructor(report: Report) {
    this.#report = report;
  }

  share(doing: WritingProgress['doing'], share: number): void {
    const now = performance.now();
    if (now - this.#told < REPORTING) return;
    this.#told = now;
    this.#report({ doing, share, frames: this.#frames, seconds: this.#seconds(now) });
  }

  frame(share: number, drawn: OffscreenCanvas | VideoFrame): void {
    const now = performance.now();
    this.#begun ??= now;
    this.#frames++;
    if (now - this.#pictured < PICTURES) {
      this.share('frames', share);
      return;
    }
    [this.#pictured, this.#told] = [now, now];
    const [wide, high] =
      drawn instanceof VideoFrame
        ? [drawn.displayWidth, drawn.displayHeight]
        : [drawn.width, drawn.height];
    const small = new OffscreenCanvas(SMALL, Math.max(1, Math.round((SMALL * high) / wide)));
    small.getContext('2d')?.drawImage(drawn, 0, 0, small.width, small.height);
    const picture = small.transferToImageBitmap();
    const [frames, seconds] = [this.#frames, this.#seconds(now)];
    this.#report(transfer({ doing: 'frames', share, frames, seconds, picture }, [picture]));
  }

  #seconds(now: number): number {
    return (now - (this.#begun ?? now)) / 1000;
  }
}

const easel = () => ({ stage: new Stage(stageFiles), surfaces });

async function writeFilm(
  id: string,
  programme: Programme,
  order: FilmOrder,
  out: FileSystemFileHandle,
  telling: Telling,
): Promise<Omit<Written, 'bytes'>> {
  const job = {
    programme,
    order,
    store: await storeOf(id),
    easel: easel(),
    open: opened(programme),
  };
  await foresee(programme, { kind: 'film', order }, job.easel.stage);
  const whole = frameCount(order);
  const sounding = order.audio ? SOUND_SHARE : 0;
  const sound = await makeSound(job, (share) => telling.share('sound', sounding * share));
  const drawn: Drawn = (frame, canvas) =>
    telling.frame(sounding + (1 - sounding) * ((frame + 1) / whole), canvas);
  for (const part of partsOf(order)) await makePart(job, part, drawn);
  await join(job, await sinkOf(out), () => telling.share('joining', 1));
  const faults =
    order.container === 'zip' ? [] : await faultsOf(new BlobSource(await out.getFile()), order);
  const byHardware =
    order.container !== 'zip' && (await encoderFor(order.video, order)) === 'prefer-hardware';
  await clearParts(id);
  return { sound, faults, byHardware };
}

/**
 * Writes it, or goes on with it from the last whole part.
 *
 * @param own  the file of the editor's choice; where there is none, it is kept here
 */
export async function write(
  id: string,
  programme: Programme,
  { kind, order }: Writing,
  own: FileSystemFileHandle | undefined,
  report: Report,
): Promise<Written> {
  const out = own ?? (await resultOf(id));
  const telling = new Telling(report);
  let written: Omit<Written, 'bytes'> = { sound: undefined, faults: [], byHardware: false };
  if (kind === 'film') written = await writeFilm(id, programme, order, out, telling);
  else if (kind === 'stills') {
    const told: Drawn = (place, canvas) => telling.frame((place + 1) / order.stills.length, canvas);
    const at = easel();
    await foresee(programme, { kind, order }, at.stage);
    await writeStills(programme, order, at, await sinkOf(out), told);
  } else {
    const told = (share: number) => telling.share('sound', share);
    const sound = await writeWav(programme, order, opened(programme), await sinkOf(out), told);
    written = { ...written, sound };
  }
  return { ...written, bytes: (await out.getFile()).size };
}
