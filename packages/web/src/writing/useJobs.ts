import { useSyncExternalStore } from 'react';
import { serverJobs } from '../sync/serverJobs.ts';
import { jobs } from './jobs.ts';

/** What this browser writes, and how far it is. */
export const useJobs = () => useSyncExternalStore(jobs.watch, jobs.state);

/** What the server writes of the open programme. */
export const useServerJobs = () => useSyncExternalStore(serverJobs.watch, serverJobs.state);
