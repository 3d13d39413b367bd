import { readFile } from '../formats/readFile.ts';
import { plainText } from '../text/lines.ts';
import { apply } from './record/apply.ts';
import { contentsOf, countsIn, likeliestPlan, placesFor, planOf } from './bringing.ts';
import { cuesInOrder } from './order.ts';
import { at25, countingIds, programmeWithCues, programmeWithPieces } from './samples.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const SRT =
  '1\n00:00:01,000 --> 00:00:02,000\nSlack water\n\n2\n00:00:03,000 --> 00:00:04,000\nGulls\n';
const srt = () => readFile(bytes(SRT), 'ferry.srt');
const script = (text: string) => readFile(bytes(text), 'script.txt');
const texts = (programme: ReturnType<typeof programmeWithCues>) =>
  cuesInOrder(programme, 's').map(({ text }) => plainText(text));

describe('what a file would become', () => {
  test('is told by what is in it', async () => {
    expect(contentsOf(await srt())).toEqual(['cues']);
    const written = await script('The tide turns.\n\nThe boat sighs.');
    expect([contentsOf(written), countsIn(written).script]).toEqual([['script'], 2]);
    const both = { ...written, markers: [{ start: 1, text: 'first oar' }] };
    expect(contentsOf(both)).toEqual(['script', 'marks']);
  });

  test('may go where there is something to go with', () => {
    const bare = { hasCues: false, hasSpeech: false };
    expect(placesFor('cues', bare)).toEqual(['replace']);
    expect(placesFor('cues', { ...bare, hasCues: true })).toEqual(['replace', 'add', 'match']);
    expect(placesFor('script', bare)).toEqual(['spread']);
    expect(placesFor('script', { ...bare, hasSpeech: true })).toEqual(['speech', 'spread']);
  });

  test('is planned without changing anything', async () => {
    const there = programmeWithCues([['The winch', 200, 250]]);
    const choice = { contents: 'cues', retiming: {}, cut: true, asSung: true } as const;
    const plan = (place: 'replace' | 'add' | 'match', file: Awaited<ReturnType<typeof srt>>) =>
      planOf(there, 's', file, { ...choice, place }, [], countingIds());
    const replaced = plan('replace', await srt());
    expect([replaced.count, replaced.range]).toEqual([2, { start: at25(25), end: at25(100) }]);
    expect(replaced.sample[0]).toEqual({ at: at25(25), text: 'Slack water' });
    expect(texts(apply(there, replaced.edit.changes))).toEqual(['Slack water', 'Gulls']);
    expect(texts(apply(there, plan('add', await srt()).edit.changes))).toEqual([
      'Slack water',
      'Gulls',
      'The winch',
    ]);
    expect(plan('match', await srt()).edit.changes).toEqual([]);
  });

  test('moves by what was said of its times, and tells what is left out', async () => {
    const empty = programmeWithCues([]);
    const choice = {
      contents: 'cues',
      place: 'replace',
      retiming: { shift: at25(-60) },
      cut: true,
      asSung: true,
    } as const;
    const { edit, count } = planOf(empty, 's', await srt(), choice, [], countingIds());
    expect([count, edit.note]).toEqual([
      1,
      '1 cue would end before the programme and is left out.',
    ]);
  });

  test('is likeliest what the editor would choose', async () => {
    const spoken = programmeWithPieces([
      [1, 3],
      [4, 6],
    ]);
    const first = likeliestPlan(
      spoken,
      's',
      await script('The tide turns.\n\nThe boat sighs.'),
      countingIds(),
    );
    expect(first?.choice.place).toBe('speech');
    const made = apply(spoken, first?.plan.edit.changes ?? []);
    // The same script, changed, is read again; another one is not.
    const again = likeliestPlan(
      made,
      's',
      await script('The tide turns.\n\nThe boat sleeps.'),
      countingIds('b'),
    );
    expect(again?.choice.place).toBe('again');
    const other = likeliestPlan(made, 's', await script('Gulls.\n\nA bell.'), countingIds('c'));
    expect(other?.choice.place).toBe('speech');
    expect(
      likeliestPlan(spoken, 's', { ...(await srt()), captions: [] }, countingIds()),
    ).toBeUndefined();
  });
});
