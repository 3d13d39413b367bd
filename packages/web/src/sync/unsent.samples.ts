/** What a browser keeps and knows, made up in memory for tests. */
import type { Step } from '@cadence/core/programme/record/history.ts';
import type { LargeStorage, SmallStorage, UnsentPorts } from './unsent.ts';

export interface Storages {
  readonly small: SmallStorage;
  readonly large: LargeStorage;
}

/** Storages that several windows can share. */
export function storages(): Storages {
  const [texts, rows] = [new Map<string, string>(), new Map<string, readonly Step[]>()];
  const watchers = new Set<(key: string) => void>();
  return {
    small: {
      keys: () => [...texts.keys()],
      get: (key) => texts.get(key) ?? null,
      set: (key, text) => {
        texts.set(key, text);
        watchers.forEach((written) => {
          written(key);
        });
      },
      remove: (key) => void texts.delete(key),
      watch: (written) => {
        watchers.add(written);
        return () => watchers.delete(written);
      },
    },
    large: {
      keys: async () => [...rows.keys()],
      get: async (key) => rows.get(key),
      set: async (key, steps) => void rows.set(key, steps),
      remove: async (key) => void rows.delete(key),
    },
  };
}

/** Windows of which some are alive; `end` ends one. */
export function madeUpWindows(...alive: string[]) {
  const living = new Set(alive);
  const waiting = new Map<string, (() => void)[]>();
  return {
    end: (client: string) => {
      living.delete(client);
      waiting.get(client)?.forEach((gone) => {
        gone();
      });
    },
    windows: {
      isGone: async (client: string) => !living.has(client),
      gone: (client: string) =>
        living.has(client)
          ? new Promise<void>((done) => {
              waiting.set(client, [...(waiting.get(client) ?? []), done]);
            })
          : Promise.resolve(),
    },
  };
}

/** What a window knows where it is the only one. */
export const noOtherWindows: Pick<UnsentPorts, 'windows' | 'afterPaint'> = {
  windows: madeUpWindows().windows,
  afterPaint: (work) => work(),
};
