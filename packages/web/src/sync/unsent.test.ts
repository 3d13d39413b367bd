import { jest } from '@jest/globals';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { setText } from '@cadence/core/programme/edits/text/reword.ts';
import type { Step } from '@cadence/core/programme/record/history.ts';
import { programmeWithCues } from '@cadence/core/programme/samples.ts';
import { stepOf } from './programmeState.ts';
import { madeUpWindows, storages } from './unsent.samples.ts';
import { Unsent } from './unsent.ts';

const tide = programmeWithCues([['The tide turns', 0, 25]]);
const typed = (text: string): Edit => setText(tide, 'c1', text);
const step = (id: string): Step => stepOf(typed(id), { id });
const ids = (steps: readonly Step[]) => steps.map(({ id }) => id);
const pass = (time = 300) => jest.advanceTimersByTimeAsync(time);

/** A window on what the browser keeps, with what it was given from others. */
function open(
  store: ReturnType<typeof storages>,
  { windows }: ReturnType<typeof madeUpWindows>,
  client: string,
  programme = 'p',
) {
  const unsent = new Unsent(programme, {
    ...store,
    windows,
    client,
    afterPaint: (work) => void setTimeout(work),
  });
  const inherited: Step[] = [];
  return { unsent, inherited, begin: () => unsent.open((steps) => inherited.push(...steps)) };
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

describe('what the server has not acknowledged', () => {
  test('is found by the next window, once the one that made it is gone', async () => {
    const [store, all] = [storages(), madeUpWindows('a')];
    const first = open(store, all, 'a');
    await first.begin();
    void first.unsent.wait([step('one'), step('two')]);
    await pass();
    all.end('a');
    expect(ids(await open(store, all, 'b').begin())).toEqual(['one', 'two']);
  });

  test('is left alone while that window lives, and handed over when it goes', async () => {
    const [store, all] = [storages(), madeUpWindows('a', 'b')];
    const [first, second] = [open(store, all, 'a'), open(store, all, 'b')];
    await first.begin();
    void first.unsent.wait([step('one')]);
    await pass();
    expect(await second.begin()).toEqual([]);
    first.unsent.draft(typed('High'));
    all.end('a');
    await pass();
    expect(ids(second.inherited)[0]).toBe('one');
    expect(second.inherited).toHaveLength(2);
  });

  test('of two windows is not mixed up', async () => {
    const [store, all] = [storages(), madeUpWindows('a', 'b')];
    const [first, second] = [open(store, all, 'a'), open(store, all, 'b')];
    await Promise.all([first.begin(), second.begin()]);
    void first.unsent.wait([step('one')]);
    void second.unsent.wait([step('two')]);
    await pass();
    // The first is done; the other's step still waits.
    void first.unsent.wait([]);
    await pass();
    all.end('a');
    all.end('b');
    expect(ids(await open(store, all, 'c').begin())).toEqual(['two']);
  });

  test('of another programme stays where it is', async () => {
    const [store, all] = [storages(), madeUpWindows('a')];
    const other = open(store, all, 'a', 'other');
    await other.begin();
    void other.unsent.wait([step('one')]);
    await pass();
    all.end('a');
    expect(await open(store, all, 'b').begin()).toEqual([]);
    expect(await store.large.keys()).toHaveLength(1);
  });

  test('is not removed before it is safe under the key of the window that took it over', async () => {
    const [store, all] = [storages(), madeUpWindows('a')];
    const first = open(store, all, 'a');
    await first.begin();
    void first.unsent.wait([step('one')]);
    await pass();
    all.end('a');
    const second = open(store, all, 'b');
    const found = await second.begin();
    // A window that ends here has lost nothing.
    expect(ids(await open(store, all, 'c').begin())).toEqual(['one']);
    void second.unsent.wait(found);
    await pass();
    expect(await store.large.keys()).toEqual(['unsent p b']);
  });

  test('is written at once when the page goes', async () => {
    const [store, all] = [storages(), madeUpWindows('a')];
    const first = open(store, all, 'a');
    await first.begin();
    first.unsent.leave([step('one'), step('two')]);
    all.end('a');
    expect(ids(await open(store, all, 'b').begin())).toEqual(['one', 'two']);
  });
});

describe('what is being typed', () => {
  test('is there at every key, and counts once when it became a step', async () => {
    const [store, all] = [storages(), madeUpWindows('a')];
    const first = open(store, all, 'a');
    await first.begin();
    first.unsent.draft(typed('H'));
    first.unsent.draft(typed('High'));
    const [draft] = JSON.parse(store.small.get('unsent p a') ?? '[]') as Step[];
    expect(draft?.changes).toEqual(typed('High').changes);
    const claimed = first.unsent.claimDraft();
    expect(claimed?.id).toBe(draft?.id);
    // Not in the database yet: a window that ends now leaves it in the local storage.
    expect(store.small.get('unsent p a')).toContain('High');
    void first.unsent.wait([{ ...step('x'), id: claimed?.id ?? '' }]);
    await pass();
    expect(store.small.get('unsent p a')).toBeNull();
    all.end('a');
    expect(ids(await open(store, all, 'b').begin())).toEqual([claimed?.id]);
  });

  test('goes when it changes nothing any more', async () => {
    const [store, all] = [storages(), madeUpWindows('a')];
    const { unsent, begin } = open(store, all, 'a');
    await begin();
    unsent.draft(typed('High'));
    unsent.draft(typed('The tide turns'));
    expect(store.small.get('unsent p a')).toBeNull();
    expect(unsent.claimDraft()).toBeUndefined();
  });

  test('is no error where the browser has no room for it', async () => {
    const [store, all] = [storages(), madeUpWindows('a')];
    const full = {
      ...store,
      small: {
        ...store.small,
        set: () => {
          throw new Error('QuotaExceededError');
        },
      },
    };
    const { unsent, begin } = open(full, all, 'a');
    await begin();
    expect(() => unsent.draft(typed('High'))).not.toThrow();
    void unsent.wait([step('one')]);
    await pass();
    all.end('a');
    expect(ids(await open(store, all, 'b').begin())).toEqual(['one']);
  });

  test('that is long is written after the page has shown the key', async () => {
    const [store, all] = [storages(), madeUpWindows('a')];
    const { unsent, begin } = open(store, all, 'a');
    await begin();
    unsent.draft(typed('High '.repeat(20_000)));
    unsent.draft(typed('Slack'));
    expect(store.small.get('unsent p a')).toContain('High');
    await pass();
    expect(store.small.get('unsent p a')).toContain('Slack');
  });
});

test('a page that is not open for long leaves nothing behind', async () => {
  const [store, all] = [storages(), madeUpWindows('a')];
  const { unsent, begin } = open(store, all, 'a');
  await begin();
  unsent.draft(typed('High'));
  unsent.claimDraft();
  void unsent.wait([]);
  await pass();
  unsent.close();
  expect([store.small.keys(), await store.large.keys()]).toEqual([[], []]);
});
