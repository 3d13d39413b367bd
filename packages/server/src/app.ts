/** The Express application, over a data folder that is open. */
import express, { type Express } from 'express';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { headers, onlyFromHere } from './guard.ts';
import { HOST_PATH, type OutsideHost } from './host/outsideHost.ts';
import type { MaterialStore } from './keep/materialStore.ts';
import type { ProgrammeKeeper } from './keep/programmeKeeper.ts';
import { answerProblems, notFound } from './problem.ts';
import { safeError } from './safeError.ts';
import { hostRoutes } from './routes/host.ts';
import { jobRoutes } from './routes/jobs.ts';
import { fontRoutes } from './routes/fonts.ts';
import { materialRoutes } from './routes/materials.ts';
import { newsRoutes } from './routes/news.ts';
import { programmeRoutes } from './routes/programmes.ts';
import type { JobKeeper } from './writing/jobKeeper.ts';
import type { Sender } from './writing/sender.ts';

export interface Parts {
  readonly keeper: ProgrammeKeeper;
  readonly store: MaterialStore;
  readonly jobs: JobKeeper;
  readonly sender: Sender;
  readonly host: OutsideHost;
  readonly log: Logger;
  /** Folder of the built interface; undefined where something else serves it. */
  readonly web?: string;
}

export function makeApp({ keeper, store, jobs, sender, host, log, web }: Parts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', 'weak');
  app.use(
    pinoHttp({
      logger: log,
      wrapSerializers: false,
      // No text of programmes is logged: only what was asked for and how it went.
      serializers: {
        req: ({ method, url }: { method: string; url: string }) => ({ method, url }),
        res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
        err: safeError,
      },
      customLogLevel: (_request, response, error) =>
        error || response.statusCode >= 500 ? 'error' : 'debug',
    }),
  );
  app.use(headers, onlyFromHere);
  app.use('/api/programmes', programmeRoutes(keeper, jobs));
  app.use('/api/jobs', jobRoutes(jobs, sender, keeper));
  app.all([HOST_PATH, `${HOST_PATH}/*rest`], host.handle);
  app.use('/api/host', hostRoutes(host));
  app.use('/api/materials', materialRoutes(store));
  app.use('/api/fonts', fontRoutes());
  app.use('/api/news', newsRoutes());
  app.use('/api', (_request, _response, next) => next(notFound('thing')));
  if (web) {
    app.use(
      '/assets',
      express.static(`${web}/assets`, { immutable: true, maxAge: '1y', fallthrough: false }),
    );
    app.use(express.static(web, { index: false }));
    app.get('/{*place}', (_request, response) => {
      response.set('Cache-Control', 'no-cache').sendFile('index.html', { root: web });
    });
  }
  app.use(answerProblems);
  return app;
}
