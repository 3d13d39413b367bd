/** Jobs for tests: films of a few seconds, and waiting for them. */
import { programmeOf, samplesFolder, SIZE } from '@cadence/film/films.samples.ts';
import type { ServerJob } from '@cadence/film/write/job.ts';
import type { FilmOrder, Writing } from '@cadence/film/write/order.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { PICTURE } from '@cadence/core/scene/sceneAt.ts';
import { fromSeconds, ZERO } from '@cadence/core/time/ticks.ts';
import type { Running } from '../start.ts';

const FILM = 'bframes-25.mp4';

/** A programme on a server, over a film whose frames have their numbers drawn into them. */
export async function programmeOn(server: Running, seconds: number): Promise<Programme> {
  await server.store.takeFile(`${samplesFolder}${FILM}`);
  const id = await server.keeper.keepNew(programmeOf(FILM, seconds));
  return server.keeper.programme(id);
}

export const filmOf = (
  { facts }: Programme,
  part: Partial<FilmOrder> = {},
): Writing & { kind: 'film' } => ({
  kind: 'film',
  order: {
    container: 'mp4',
    video: 'h264',
    ...SIZE,
    rate: facts.frameRate,
    quality: 400_000,
    range: { start: ZERO, end: facts.length },
    on: PICTURE,
    tracks: [],
    ...part,
  },
});

/** A film of a minute that takes some seconds to write. */
export const longFilm = (programme: Programme) =>
  filmOf(programme, {
    ...{ width: 640, height: 320 },
    range: { start: ZERO, end: fromSeconds(60) },
    on: '#204060',
  });

/** Asks a server over HTTP. */
export const call = (
  { address }: Running,
  method: string,
  path: string,
  body?: unknown,
): Promise<Response> =>
  fetch(`${address}/api${path}`, {
    method,
    ...(body !== undefined && {
      body: JSON.stringify(body),
      headers: { 'Content-Type': 'application/json' },
    }),
  });

/** Asks a server to write something. */
export const ask = (server: Running, content: Programme, writing: Writing): Promise<ServerJob> =>
  server.jobs.add({ programme: content.facts.id, name: 'tide.mp4', writing, content });

/** Waits until a job is as it should be. @returns the job */
export function until(
  { jobs }: Running,
  id: string,
  isSo: (job: ServerJob) => boolean,
): Promise<ServerJob> {
  return new Promise((done) => {
    const hear = (job: ServerJob) => {
      if (job.id !== id || !isSo(job)) return;
      jobs.events.off('job', hear);
      done(job);
    };
    jobs.events.on('job', hear);
    const now = jobs.of(jobs.one(id).programme).find((job) => job.id === id);
    if (now) hear(now);
  });
}

export const isOver = ({ state }: ServerJob): boolean => state === 'done' || state === 'failed';
