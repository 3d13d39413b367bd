/** `/api/host`: the stand-in for an outside host of films. */
import { Router, json } from 'express';
import * as yup from 'yup';
import { check } from '@cadence/core/programme/schema.ts';
import { MOODS, type Mood, type OutsideHost } from '../host/outsideHost.ts';

const moody = yup.object({ mood: yup.string().oneOf(MOODS).required() }).noUnknown();

export function hostRoutes(host: OutsideHost): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json({ mood: host.mood, films: await host.films() });
  });

  router.delete('/', async (_request, response) => {
    await host.clear();
    response.status(204).end();
  });

  router.put('/mood', json(), (request, response) => {
    host.mood = check<{ mood: Mood }>(moody, request.body).mood;
    response.status(204).end();
  });

  return router;
}
