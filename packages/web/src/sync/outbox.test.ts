import { jest } from '@jest/globals';
import { apply } from '@cadence/core/programme/record/apply.ts';
import type { Change } from '@cadence/core/programme/record/change.ts';
import { setText } from '@cadence/core/programme/edits/text/reword.ts';
import {
  NO_HISTORY,
  record,
  type History,
  type Step,
} from '@cadence/core/programme/record/history.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { programmeWithCues } from '@cadence/core/programme/samples.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import type { KeptStep, Commit } from '@cadence/core/programme/wire.ts';
import { ServerProblem } from './api.ts';
import { Outbox, WAITS, type ServerEvents } from './outbox.ts';
import {
  made,
  programmeReducer,
  stepOf,
  type Open,
  type ProgrammeState,
} from './programmeState.ts';
import { storages, noOtherWindows } from './unsent.samples.ts';
import { Unsent } from './unsent.ts';

const tide = programmeWithCues([
  ['The tide turns', 0, 25],
  ['at the sluice,', 30, 50],
]);

/** A server as far as an outbox knows it. */
class MadeUpServer {
  version = 7;
  programme: Programme = tide;
  history: History = NO_HISTORY;
  kept: KeptStep[] = [];
  requests = 0;
  /** What the next request is answered with instead. */
  problems: (ServerProblem | TypeError)[] = [];
  told: ServerEvents | undefined;
  /** Whether it tells of the steps of other windows. */
  tells = false;

  keep(clientId: string, step: Step): number {
    this.programme = apply(this.programme, step.changes);
    this.history = record(this.history, step);
    const kept = { version: ++this.version, clientId, step };
    this.kept.push(kept);
    if (this.tells && clientId !== 'me') this.told?.step(kept);
    return this.version;
  }

  send = async ({ base, clientId, changeId, ...rest }: Commit) => {
    this.requests++;
    const problem = this.problems.shift();
    if (problem) throw problem;
    const before = this.kept.find(({ step }) => step.id === changeId);
    if (before) return { version: before.version };
    if (base !== this.version)
      throw new ServerProblem(409, {
        version: this.version,
        missed: this.kept.filter(({ version }) => version > base),
      });
    return { version: this.keep(clientId, { id: changeId, ...rest }) };
  };

  open = async () => ({
    version: this.version,
    programme: this.programme,
    history: this.history,
  });
}

function window(server: MadeUpServer, store = storages()) {
  let state: ProgrammeState = null;
  const refusals: string[] = [];
  const outbox = new Outbox({
    id: 'p',
    client: 'me',
    state: () => state,
    dispatch: (action) => {
      state = programmeReducer(state, action);
    },
    unsent: new Unsent('p', { ...store, ...noOtherWindows, client: 'me' }),
    open: server.open,
    send: server.send,
    listen: (_since, told) => {
      server.told = told;
      return () => undefined;
    },
    tellRefused: (message) => refusals.push(message),
    idle: async () => undefined,
  });
  const now = () => state as unknown as Open;
  return {
    outbox,
    refusals,
    now,
    make: (changes: readonly Change[], id: string) => {
      state = programmeReducer(state, made(stepOf({ name: id, changes }, { id })));
      outbox.soon();
    },
    text: (id = 'c1') => plainText(now().programme.cues[id]?.text ?? []),
  };
}

const rewrite = (text: string, id = 'c1') => setText(tide, id, text).changes;
/** Runs pending promises, and timers up to this many milliseconds. */
const pass = (time = 50) => jest.advanceTimersByTimeAsync(time);

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

describe('an outbox', () => {
  test('sends steps in order, and each is acknowledged', async () => {
    const server = new MadeUpServer();
    const mine = window(server);
    await mine.outbox.open();
    mine.make(rewrite('High water'), 'one');
    mine.make(rewrite('Slack water', 'c2'), 'two');
    await pass();
    expect(server.kept.map(({ step }) => step.id)).toEqual(['one', 'two']);
    expect([mine.now().pending, mine.now().version]).toEqual([[], 9]);
    expect(mine.now().confirmed).toEqual(server.programme);
  });

  test('waits longer and longer while the server is away, and goes on when it is told', async () => {
    const server = new MadeUpServer();
    const mine = window(server);
    await mine.outbox.open();
    server.problems = Array.from({ length: 40 }, () => new TypeError('Failed to fetch'));
    mine.make(rewrite('High water'), 'one');
    await pass(20_000);
    expect(mine.now().reached).toBe(false);
    // 0.5, 1, 2, 4, 8 s: no more than six tries.
    expect(server.requests).toBeLessThanOrEqual(7);
    server.problems = [];
    server.told?.version(server.version);
    await pass();
    expect(mine.now().pending).toEqual([]);
  });

  test('puts its step on top of one of another window', async () => {
    const server = new MadeUpServer();
    const mine = window(server);
    await mine.outbox.open();
    server.keep('other', stepOf({ name: 'theirs', changes: rewrite('at the lock,', 'c2') }));
    mine.make(rewrite('High water'), 'one');
    await pass();
    expect([mine.text('c1'), mine.text('c2')]).toEqual(['High water', 'at the lock,']);
    expect(mine.now().confirmed).toEqual(server.programme);
  });

  test('takes back a step that is refused, and says why', async () => {
    const server = new MadeUpServer();
    const mine = window(server);
    await mine.outbox.open();
    server.problems = [new ServerProblem(422, { detail: 'Too long.' })];
    mine.make(rewrite('High water'), 'one');
    await pass();
    expect([mine.text(), mine.refusals, mine.now().history]).toEqual([
      'The tide turns',
      ['Too long.'],
      NO_HISTORY,
    ]);
  });

  test('counts a step once whose answer was lost', async () => {
    const server = new MadeUpServer();
    const mine = window(server);
    await mine.outbox.open();
    server.tells = true;
    mine.make(rewrite('High water'), 'one');
    server.keep('me', { id: 'one', name: 'one', changes: rewrite('High water') });
    server.keep('other', stepOf({ name: 'theirs', changes: rewrite('at the lock,', 'c2') }));
    await pass();
    expect([mine.now().pending, mine.now().version]).toEqual([[], 9]);
    expect(mine.text('c2')).toBe('at the lock,');
    expect(server.kept).toHaveLength(2);
  });
});

describe('a server whose data was put back to an older copy', () => {
  /** A window at version 8 of a programme of which the server has version 5. */
  async function ahead() {
    const server = new MadeUpServer();
    const mine = window(server);
    await mine.outbox.open();
    mine.make(rewrite('High water'), 'one');
    await pass();
    Object.assign(server, { version: 5, programme: tide, history: NO_HISTORY, kept: [] });
    server.requests = 0;
    return { server, mine };
  }

  test('is not asked again and again', async () => {
    const { server, mine } = await ahead();
    mine.make(rewrite('Slack water', 'c2'), 'two');
    await pass(10_000);
    expect(mine.now().olderOnServer).toBe(5);
    expect(server.requests).toBe(1);
    expect(mine.now().pending).toHaveLength(1);
  });

  test('is noticed when it answers again, before anything is sent', async () => {
    const { server, mine } = await ahead();
    server.told?.version(5);
    await pass();
    expect(mine.now().olderOnServer).toBe(5);
  });

  test('is not mistaken for one that only told late what it had', async () => {
    const server = new MadeUpServer();
    const mine = window(server);
    await mine.outbox.open();
    mine.make(rewrite('High water'), 'one');
    await pass();
    server.told?.version(7);
    await pass();
    expect(mine.now().olderOnServer).toBeNull();
  });

  test('gets all that the window has, in one step that can be undone', async () => {
    const { server, mine } = await ahead();
    mine.make(rewrite('Slack water', 'c2'), 'two');
    await pass();
    await mine.outbox.putOnTop();
    await pass();
    expect([mine.text('c1'), mine.text('c2')]).toEqual(['High water', 'Slack water']);
    expect(server.programme.cues).toEqual(mine.now().programme.cues);
    expect(server.kept).toHaveLength(1);
    expect(mine.now()).toMatchObject({ olderOnServer: null, version: 6, pending: [] });
  });
});

test('a server that answers 409 with nothing new is not asked without a wait', async () => {
  const server = new MadeUpServer();
  const mine = window(server);
  await mine.outbox.open();
  server.problems = Array.from(
    { length: 50 },
    () => new ServerProblem(409, { version: 7, missed: [] }),
  );
  mine.make(rewrite('High water'), 'one');
  await pass(WAITS.first * 7);
  expect(server.requests).toBeLessThanOrEqual(4);
});
