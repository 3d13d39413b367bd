/** `/api/programmes`: the list, each programme, its changes, and its events. */
import { Router, json } from 'express';
import * as yup from 'yup';
import { FILE_FORMAT } from '@cadence/core/programme/fileFormat.ts';
import { check, commitShape, programmeOfFile } from '@cadence/core/programme/schema.ts';
import type { Commit, KeptStep } from '@cadence/core/programme/wire.ts';
import type { ServerJob } from '@cadence/film/write/job.ts';
import type { ProgrammeKeeper } from '../keep/programmeKeeper.ts';
import { Problem } from '../problem.ts';
import type { JobKeeper } from '../writing/jobKeeper.ts';

const titled = yup.object({ title: yup.string().trim().min(1).max(300).required() }).noUnknown();

export function programmeRoutes(keeper: ProgrammeKeeper, jobs: JobKeeper): Router {
  const router = Router();
  router.use(json({ limit: '64mb' }));

  router.get('/', async (_request, response) => {
    response.json(await keeper.list());
  });

  router.post('/', async (request, response) => {
    const { title } = check<{ title: string }>(titled, request.body);
    response.status(201).json({ id: await keeper.create(title) });
  });

  router.post('/import', async (request, response) => {
    const programme = programmeOfFile(request.body);
    response.status(201).json({ id: await keeper.keepNew(programme) });
  });

  router.get('/:id', async (request, response) => {
    response.json(await keeper.open(request.params.id));
  });

  router.patch('/:id', async (request, response) => {
    const { title } = check<{ title: string }>(titled, request.body);
    const { version, programme } = await keeper.open(request.params.id);
    await keeper.commit(request.params.id, {
      base: version,
      clientId: 'list',
      changeId: crypto.randomUUID(),
      name: 'Rename programme',
      changes: [
        {
          entity: 'programme',
          id: programme.facts.id,
          was: { title: programme.facts.title },
          becomes: { title },
        },
      ],
    });
    response.json({ title });
  });

  router.delete('/:id', async (request, response) => {
    await keeper.remove(request.params.id);
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    await keeper.restore(request.params.id);
    response.status(204).end();
  });

  router.post('/:id/duplicate', async (request, response) => {
    const programme = await keeper.programme(request.params.id);
    const facts = { ...programme.facts, title: `${programme.facts.title}, copy`.slice(0, 300) };
    response.status(201).json({ id: await keeper.keepNew({ ...programme, facts }) });
  });

  router.get('/:id/file', async (request, response) => {
    const programme = await keeper.programme(request.params.id);
    response
      .attachment(`${programme.facts.title.replace(/[^\p{L}\p{N} _-]/gu, '')}.cadence.json`)
      .json({ format: FILE_FORMAT, programme });
  });

  router.post('/:id/changes', async (request, response) => {
    const commit = check<Commit>(commitShape, request.body);
    response.json({ version: await keeper.commit(request.params.id, commit) });
  });

  router.get('/:id/events', async (request, response) => {
    const { id } = request.params;
    const from = Number(request.query.since);
    if (!Number.isSafeInteger(from))
      throw new Problem(400, 'bad-request', 'Not understood', 'Say since which version.');
    const version = await keeper.version(id);
    response.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' });
    const send = (of: string, kept: KeptStep) => {
      if (of === id) response.write(`data: ${JSON.stringify(kept)}\n\n`);
    };
    const say = (event: string, data: unknown) =>
      response.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);
    const job = (told: ServerJob) => told.programme === id && say('job', told);
    const gone = (of: string, which: string) => of === id && say('gone', which);
    keeper.events.on('step', send);
    jobs.events.on('job', job);
    jobs.events.on('gone', gone);
    request.on('close', () => {
      keeper.events.off('step', send);
      jobs.events.off('job', job);
      jobs.events.off('gone', gone);
    });
    say('version', version);
    say('jobs', jobs.of(id));
    for (const kept of await keeper.since(id, from)) send(id, kept);
  });

  return router;
}
