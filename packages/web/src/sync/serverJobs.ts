/** What the server writes of the open programme, as its events tell. */
import type { ServerJob } from '@cadence/film/write/job.ts';

let jobs: readonly ServerJob[] = [];
const watchers = new Set<() => void>();

function set(now: readonly ServerJob[]): void {
  jobs = now;
  for (const watcher of watchers) watcher();
}

export const serverJobs = {
  watch: (watcher: () => void): (() => void) => {
    watchers.add(watcher);
    return () => watchers.delete(watcher);
  },
  state: (): readonly ServerJob[] => jobs,

  /** Listens to the events of a programme. @returns what ends it */
  listen(events: EventSource): () => void {
    const hear = <T>(event: string, take: (data: T) => void) =>
      events.addEventListener(event, ({ data }: MessageEvent<string>) =>
        take(JSON.parse(data) as T),
      );
    hear<ServerJob[]>('jobs', set);
    hear<ServerJob>('job', (job) => {
      const at = jobs.findIndex(({ id }) => id === job.id);
      set(at < 0 ? [...jobs, job] : jobs.with(at, job));
    });
    hear<string>('gone', (gone) => set(jobs.filter(({ id }) => id !== gone)));
    return () => set([]);
  },
};
