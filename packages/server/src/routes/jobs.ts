/** `/api/jobs`: what is written on the server. How far it is comes with the events of its programme. */
import { Router, json } from 'express';
import * as yup from 'yup';
import { FILE_FORMAT } from '@cadence/core/programme/fileFormat.ts';
import { check, programmeOfFile } from '@cadence/core/programme/schema.ts';
import { isSeeThrough } from '@cadence/film/write/order.ts';
import type { ProgrammeKeeper } from '../keep/programmeKeeper.ts';
import { cannotBeWritten, type JobKeeper } from '../writing/jobKeeper.ts';
import type { Sender } from '../writing/sender.ts';
import { checkWriting } from '../writing/orderShapes.ts';

const asked = yup
  .object({
    programme: yup.string().required(),
    name: yup.string().trim().min(1).max(300).required(),
    writing: yup.mixed().required(),
    content: yup.mixed().required(),
  })
  .noUnknown();

interface Asked {
  readonly programme: string;
  readonly name: string;
  readonly writing: unknown;
  readonly content: unknown;
}

export function jobRoutes(jobs: JobKeeper, sender: Sender, keeper: ProgrammeKeeper): Router {
  const router = Router();
  router.use(json({ limit: '64mb' }));

  router.post('/', async (request, response) => {
    const { programme, name, writing, content } = check<Asked>(asked, request.body);
    // A programme that is not here has nobody to tell of its jobs.
    await keeper.version(programme);
    const what = checkWriting(writing);
    if (what.kind === 'film' && isSeeThrough(what.order) && what.order.container !== 'zip')
      throw cannotBeWritten('The server writes see-through text as pictures, not as a film.');
    const whole = programmeOfFile({ format: FILE_FORMAT, programme: content });
    const job = { programme, name, writing: what, content: whole };
    response.status(201).json(await jobs.add(job));
  });

  router.post('/:id/pause', async (request, response) => {
    await jobs.pause(request.params.id);
    response.status(204).end();
  });

  router.post('/:id/go-on', async (request, response) => {
    await jobs.goOn(request.params.id);
    response.status(204).end();
  });

  router.post('/:id/send', async (request, response) => {
    await sender.send(request.params.id);
    response.status(204).end();
  });

  router.delete('/:id', async (request, response) => {
    await jobs.remove(request.params.id);
    response.status(204).end();
  });

  router.get('/:id/file', async (request, response) => {
    const { path, name } = await jobs.file(request.params.id);
    response.attachment(name).set('Cache-Control', 'no-store');
    response.sendFile(path, { dotfiles: 'allow', cacheControl: false });
  });

  return router;
}
