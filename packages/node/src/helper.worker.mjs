/** Starts the helper thread: threads of Node 20 do not read TypeScript by themselves. */
import { register } from 'tsx/esm/api';

register();
await import('./helperWorker.ts');
