/** `/api/news/harbour-board`: the stand-in for a news service. */
import { Router } from 'express';
import { harbourFeed } from '../news/harbourBoard.ts';

export function newsRoutes(): Router {
  const router = Router();
  router.get('/harbour-board', (_request, response) => {
    response.type('application/rss+xml').set('Cache-Control', 'no-cache');
    response.send(harbourFeed(Date.now()));
  });
  return router;
}
