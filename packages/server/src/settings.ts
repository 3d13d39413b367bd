/** What the environment says of how the server is to run. */
import { fileURLToPath } from 'node:url';
import type { StartOptions } from './start.ts';

const project = fileURLToPath(new URL('../../../', import.meta.url));

/** The folder of the data unless another is named, and that of the built interface. */
const DATA = `${project}data`;
const WEB = `${project}packages/web/dist`;
/** The port on which the application answers unless another is named. */
const PORT = 4310;

/** Settings of a server. */
export function settings(): StartOptions {
  const { CADENCE_DATA, CADENCE_PORT, CADENCE_WEB, CADENCE_LOG, CADENCE_QUEUE, CADENCE_STORE } =
    process.env;
  return {
    data: CADENCE_DATA ?? DATA,
    port: Number(CADENCE_PORT ?? PORT),
    ...(CADENCE_WEB !== 'none' && { web: CADENCE_WEB ?? WEB }),
    ...(CADENCE_LOG && { logLevel: CADENCE_LOG }),
    queue: CADENCE_QUEUE,
    depot: CADENCE_STORE,
  };
}

/** The queue from which a worker takes films, and where it finds material and leaves them. */
export const workerSettings = (): {
  readonly queue: string | undefined;
  readonly depot: string;
} => {
  const { CADENCE_DATA, CADENCE_QUEUE, CADENCE_STORE } = process.env;
  return { queue: CADENCE_QUEUE, depot: CADENCE_STORE ?? CADENCE_DATA ?? DATA };
};
