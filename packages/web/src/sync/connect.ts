/** An open programme connected to the server and to what this browser keeps. */
import { del, get, keys, set } from 'idb-keyval';
import type { Step } from '@cadence/core/programme/record/history.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { KeptStep } from '@cadence/core/programme/wire.ts';
import { eventsUrl, server } from './api.ts';
import { whenIdle } from './idle.ts';
import { Outbox, type OutboxPorts, type ServerEvents } from './outbox.ts';
import { sendStep } from './sending.ts';
import { serverJobs } from './serverJobs.ts';
import { clientId, windows } from './thisWindow.ts';
import { Unsent, type LargeStorage, type SmallStorage } from './unsent.ts';

const small: SmallStorage = {
  keys: () => Object.keys(localStorage),
  get: (key) => localStorage.getItem(key),
  set: (key, text) => localStorage.setItem(key, text),
  remove: (key) => localStorage.removeItem(key),
  watch: (written) => {
    const hear = ({ key, newValue }: StorageEvent) => {
      if (key !== null && newValue !== null) written(key);
    };
    window.addEventListener('storage', hear);
    return () => window.removeEventListener('storage', hear);
  },
};

const large: LargeStorage = {
  keys: async () => (await keys()).filter((key) => typeof key === 'string'),
  get: (key) => get<readonly Step[]>(key),
  set: (key, steps) => set(key, steps),
  remove: (key) => del(key),
};

/** Listens to steps of other windows, and to the server's newest version on each connection. */
function listen(id: Id, since: number, hears: ServerEvents): () => void {
  const events = new EventSource(eventsUrl(id, since));
  events.onmessage = ({ data }: MessageEvent<string>) => {
    // The server sends our own steps too. They are skipped unread: thousands of changes take long to parse.
    if (!data.includes(`"clientId":"${clientId}"`)) hears.step(JSON.parse(data) as KeptStep);
  };
  events.addEventListener('version', ({ data }: MessageEvent<string>) =>
    hears.version(Number(data)),
  );
  const forget = serverJobs.listen(events);
  return () => {
    events.close();
    forget();
  };
}

/** An outbox for a programme, and what ends its connection. */
export function connect(
  id: Id,
  ports: Pick<OutboxPorts, 'state' | 'dispatch' | 'tellRefused'>,
): { readonly outbox: Outbox; readonly end: () => void } {
  const outbox = new Outbox({
    ...ports,
    id,
    client: clientId,
    unsent: new Unsent(id, {
      small,
      large,
      windows,
      client: clientId,
      afterPaint: (work) => requestAnimationFrame(() => setTimeout(work)),
    }),
    open: () => server.open(id),
    send: (change) => sendStep(id, change),
    listen: (since, hears) => listen(id, since, hears),
    idle: whenIdle,
  });
  const online = () => outbox.retryNow();
  const leave = () => outbox.leave();
  const stay = () => outbox.stay();
  window.addEventListener('online', online);
  window.addEventListener('pagehide', leave);
  window.addEventListener('pageshow', stay);
  return {
    outbox,
    end: () => {
      window.removeEventListener('online', online);
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('pageshow', stay);
      outbox.close();
    },
  };
}
