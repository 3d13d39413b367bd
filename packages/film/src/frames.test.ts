import { fileURLToPath } from 'node:url';
import { FilePathSource } from 'mediabunny';
import { withCodecs } from '@cadence/node/codecs.ts';
import { surfaces } from '@cadence/node/stageFiles.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import { frames as spanOf, type FrameRate } from '@cadence/core/time/frameRate.ts';
import type { FilmFrames } from '@cadence/paint/stage.ts';
import { readFrame, samplesFolder } from './films.samples.ts';
import { BrokenFilm, openFilm } from './frames.ts';

async function open(name: string): Promise<FilmFrames> {
  await withCodecs();
  return openFilm(new FilePathSource(`${samplesFolder}${name}`), surfaces);
}

const rate = (num: number, den = 1): FrameRate => ({ num, den, dropFrame: false });

/** Which frame is seen at each frame of a programme. */
async function seen(film: FilmFrames, of: FrameRate, count: number): Promise<number[]> {
  const numbers: number[] = [];
  for (let frame = 0; frame < count; frame++)
    numbers.push(readFrame(await film.frameAt(spanOf(frame, of))).number);
  await film.close();
  return numbers;
}

const upTo = (count: number, from = 0) => Array.from({ length: count }, (_, at) => from + at);

describe('the frames of a film', () => {
  it.each([
    ['bframes-25.mp4', rate(25)],
    ['drop-2997.mp4', rate(30_000, 1001)],
    ['cinema-23976.mov', rate(24_000, 1001)],
    ['fast-50.mkv', rate(50)],
    ['vp9-2997.webm', rate(30_000, 1001)],
    ['full-range.mp4', rate(25)],
  ])('are those of the programme, each once, in %s', async (name, of) => {
    expect(await seen(await open(name), of, 120)).toEqual(upTo(120));
  });

  it('last as long as they last, where they are of several lengths', async () => {
    const inTurn = upTo(270).map(
      (at) => 3 * Math.floor(at / 9) + '011122222'.charCodeAt(at % 9) - 48,
    );
    expect(await seen(await open('variable.mp4'), rate(50), 270)).toEqual(inTurn);
  });

  it('begin when the film says, and before that the first is seen', async () => {
    const late = await seen(await open('late.mp4'), rate(25), 40);
    expect(late).toEqual([...upTo(13).map(() => 0), ...upTo(27)]);
  });

  it('hide what is before an edit list begins', async () => {
    expect(await seen(await open('cut.mp4'), rate(25), 60)).toEqual(upTo(60, 20));
  });

  it('are turned as the film says', async () => {
    const film = await open('turned.mp4');
    const picture = await film.frameAt(fromSeconds(2));
    expect(picture).toMatchObject({ width: 64, height: 128 });
    expect(readFrame(picture, true).number).toBe(50);
    await film.close();
  });

  it('are found whichever way one goes', async () => {
    const film = await open('bframes-25.mp4');
    for (const frame of [100, 3, 99, 98, 97, 47, 48, 49, 0, 119, 118, 60]) {
      expect(readFrame(await film.frameAt(spanOf(frame, rate(25)))).number).toBe(frame);
    }
    // The last frame stays.
    expect(readFrame(await film.frameAt(fromSeconds(90))).number).toBe(119);
    await film.close();
  });

  it('are found where several are asked for at once', async () => {
    const film = await open('bframes-25.mp4');
    const asked = [10, 80, 11, 12];
    const found = await Promise.all(
      asked.map(async (frame) => readFrame(await film.frameAt(spanOf(frame, rate(25)))).number),
    );
    expect(found).toEqual(asked);
    await film.close();
  });

  it.each(['bframes-25.mp4', 'drop-2997.mp4', 'full-range.mp4', 'vp9-2997.webm'])(
    'have the colours that the film was made of: %s',
    async (name) => {
      const film = await open(name);
      const { patches } = readFrame(await film.frameAt(fromSeconds(1)));
      const meant = [
        [200, 40, 40],
        [40, 180, 60],
        [50, 60, 200],
        [220, 190, 60],
      ];
      const off = patches.flat().map((value, at) => Math.abs(value - (meant.flat()[at] as number)));
      expect(Math.max(...off)).toBeLessThanOrEqual(6);
      await film.close();
    },
  );

  it('are not those of a file that is no film', async () => {
    await withCodecs();
    const source = new FilePathSource(fileURLToPath(import.meta.url));
    await expect(openFilm(source, surfaces)).rejects.toBeInstanceOf(BrokenFilm);
  });
});
