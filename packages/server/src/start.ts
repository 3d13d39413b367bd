/** Starting the server on a data folder, and stopping it. */
import { mkdir } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import { join, resolve } from 'node:path';
import pino from 'pino';
import { makeApp } from './app.ts';
import { CannotStart, reasonForStart } from './keep/cannotStart.ts';
import { closeDatabase, DATABASE_FILE, openDatabase, type Database } from './keep/database.ts';
import { lockFolder } from './keep/folderLock.ts';
import { MaterialStore } from './keep/materialStore.ts';
import { ProgrammeKeeper } from './keep/programmeKeeper.ts';
import { safeError } from './safeError.ts';
import { Crew } from '@cadence/node/crew.ts';
import { FolderDepot, MATERIAL } from './writing/depot.ts';
import type { Hands } from './writing/hands.ts';
import { openDepot } from './writing/openDepot.ts';
import { HOST_PATH, OutsideHost } from './host/outsideHost.ts';
import { Sender } from './writing/sender.ts';
import { JobKeeper } from './writing/jobKeeper.ts';
import { OwnHands } from './writing/ownHands.ts';

export interface Running {
  readonly address: string;
  readonly keeper: ProgrammeKeeper;
  readonly store: MaterialStore;
  readonly jobs: JobKeeper;
  stop(): Promise<void>;
  /** Whether nothing has ever been kept in the data folder. */
  isNew(): Promise<boolean>;
  /** Stops and ends the process on Ctrl-C, or when it is asked to end. */
  stopOnSignal(): void;
}

export interface StartOptions {
  /** Where everything is kept. */
  readonly data: string;
  /** The port to listen on, or the next free one after it; 0 for any. */
  readonly port: number;
  /** Folder of the built interface. */
  readonly web?: string;
  readonly logLevel?: string;
  /** The queue from which workers take films, such as `redis://127.0.0.1:6379`; where there is none, they are written here. */
  readonly queue?: string | undefined;
  /** Where workers find material and leave films: a shared folder, or `s3://bucket/prefix`. The data folder unless said. */
  readonly depot?: string | undefined;
}

const HOST = '127.0.0.1';

/**
 * Starts the server.
 *
 * @throws CannotStart with one sentence that says what is wrong and what to do
 */
export async function start({
  data,
  port,
  web,
  logLevel = 'warn',
  queue,
  depot,
}: StartOptions): Promise<Running> {
  const folder = resolve(data);
  const opened = await open(folder, queue, depot).catch((error: unknown) => {
    const reason = reasonForStart(error, { folder, file: join(folder, DATABASE_FILE) });
    throw reason === undefined ? error : new CannotStart(reason, { cause: error });
  });
  const { lock, database, keeper, store, jobs, depot: kept } = opened;
  const sender = new Sender(jobs);
  const host = new OutsideHost(join(folder, 'host'));
  const log = pino({ level: logLevel, serializers: { err: safeError } });
  const server = createServer(
    makeApp({ keeper, store, jobs, sender, host, log, ...(web && { web: resolve(web) }) }),
  );
  server.requestTimeout = 0;
  const bound = await listen(server, port);
  const address = `http://${HOST}:${bound}`;
  await lock.announce(address);
  sender.begin(`${address}${HOST_PATH}`);
  const stop = async () => {
    const closed = new Promise((done) => server.close(done));
    server.closeAllConnections();
    await sender.close();
    await closed;
    await jobs.close();
    await kept.close();
    await closeDatabase(database);
    await lock.release();
  };
  return {
    address,
    keeper,
    store,
    jobs,
    stop,
    isNew: async () => (await keeper.count()) === 0,
    stopOnSignal() {
      let stopping = false;
      for (const signal of ['SIGINT', 'SIGTERM'] as const)
        process.on(signal, () => {
          if (stopping) return;
          stopping = true;
          void stop().then(() => process.exit(0));
        });
    },
  };
}

/** Workers on many machines; loaded only where there is a queue. */
async function queueHands(url: string): Promise<Hands> {
  const { QueueHands } = await import('./writing/queueHands.ts');
  return new QueueHands(url);
}

/** Opens what is kept in a data folder, which nobody else has open; lets go of it where that fails. */
async function open(folder: string, queue: string | undefined, place: string | undefined) {
  await mkdir(folder, { recursive: true });
  const lock = await lockFolder(folder);
  let database: Database | undefined;
  try {
    database = await openDatabase(folder);
    const keeper = new ProgrammeKeeper(database);
    await keeper.purge();
    const store = await MaterialStore.open(join(folder, MATERIAL), database);
    const depot = place === undefined ? new FolderDepot(folder) : await openDepot(place);
    const hands = queue ? await queueHands(queue) : new OwnHands(depot, new Crew());
    const jobs = await JobKeeper.open(database, store, depot, hands);
    return { lock, database, keeper, store, jobs, depot };
  } catch (error) {
    await database?.close(true).catch(() => undefined);
    await lock.release();
    throw error;
  }
}

/** Listens on the first free port from `port` on. */
function listen(server: Server, port: number): Promise<number> {
  return new Promise((done, fail) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE' && port !== 0 && port < 65_535)
        listen(server, port + 1).then(done, fail);
      else fail(error);
    });
    server.listen(port, HOST, () => {
      const address = server.address();
      done(typeof address === 'object' && address ? address.port : port);
    });
  });
}
