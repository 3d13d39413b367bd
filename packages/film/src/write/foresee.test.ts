import { withCodecs } from '@cadence/node/codecs.ts';
import { stageFiles } from '@cadence/node/stageFiles.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { NOTHING, PICTURE } from '@cadence/core/scene/sceneAt.ts';
import { fromSeconds, ZERO } from '@cadence/core/time/ticks.ts';
import { Stage } from '@cadence/paint/stage.ts';
import { programmeOf, samplesFolder, SIZE } from '../films.samples.ts';
import { foresee } from './foresee.ts';
import type { FilmOrder } from './order.ts';

const programme = programmeOf('bframes-25.mp4', 4);
const stages: Stage[] = [];
afterEach(async () => {
  for (const stage of stages.splice(0)) await stage.close();
});

async function foreseen(of: Programme, part: Partial<FilmOrder> = {}): Promise<void> {
  await withCodecs();
  const stage = new Stage(stageFiles(samplesFolder));
  stages.push(stage);
  const order: FilmOrder = {
    container: 'mp4',
    video: 'h264',
    ...SIZE,
    rate: of.facts.frameRate,
    quality: 'good',
    range: { start: ZERO, end: of.facts.length },
    on: PICTURE,
    tracks: [],
    ...part,
  };
  await foresee(of, { kind: 'film', order }, stage);
}

const [strand] = Object.values(programme.strands);
if (!strand) throw new Error('There is no strand.');

test('a film that can be written is', () => expect(foreseen(programme)).resolves.toBeUndefined());

describe('a font that is not here is named before anything is written', () => {
  const style = { ...strand.style, family: 'Orran Grotesque' };
  const set = { ...programme, strands: { [strand.id]: { ...strand, style } } };

  test('where text is drawn in it', () =>
    expect(foreseen(set)).rejects.toThrow('The font “Orran Grotesque” is not here'));

  test('and not where its strand is muted, or goes along as a track', async () => {
    const muted = { ...strand, style, muted: true };
    await foreseen({ ...set, strands: { [strand.id]: muted } });
    await foreseen(set, { tracks: [strand.id] });
  });
});

describe('a film that is gone or damaged is named before anything is written', () => {
  const [film] = Object.values(programme.materials);
  if (!film) throw new Error('There is no film.');
  const gone = { ...programme, materials: { m: { ...film, hash: '0'.repeat(64) } } };

  test('where it is seen', async () => {
    await expect(foreseen(gone)).rejects.toThrow('“bframes-25.mp4” cannot be drawn: The file');
    const text = { ...film, name: 'make.mjs', hash: '' };
    await expect(foreseen({ ...programme, materials: { m: text } })).rejects.toThrow(
      '“make.mjs” cannot be drawn',
    );
  });

  test('and not where text stands on nothing, or after its end', async () => {
    await foreseen(gone, { on: NOTHING, container: 'zip' });
    const short = { ...gone.materials.m, length: fromSeconds(1) };
    const range = { start: fromSeconds(2), end: fromSeconds(4) };
    await foreseen({ ...gone, materials: { m: short } }, { range });
  });
});
