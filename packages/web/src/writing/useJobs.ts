import { useSyncExternalStore } from 'react';
import { jobs } from './jobs.ts';

/** What is being written, and how far it is. */
export const useJobs = () => useSyncExternalStore(jobs.watch, jobs.state);
