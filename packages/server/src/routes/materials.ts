/** `/api/materials`: files of material, streamed in and served in ranges. */
import { Router, raw, type RequestHandler } from 'express';
import { SIDE_FILES, type MaterialStore, type SideFile } from '../keep/materialStore.ts';
import { notFound } from '../problem.ts';

const sideOf = (text: unknown): SideFile => {
  if (typeof text === 'string' && Object.hasOwn(SIDE_FILES, text)) return text as SideFile;
  throw notFound('file beside a material');
};

export function materialRoutes(store: MaterialStore): Router {
  const router = Router();

  router.post('/', async (request, response) => {
    const { hash, bytes, mediaType } = await store.take(request);
    response.status(201).json({ hash, bytes, mediaType });
  });

  const serve: RequestHandler<{ hash: string }> = async (request, response) => {
    const { path, mediaType } = await store.find(request.params.hash);
    response.set('Cache-Control', 'private, max-age=31536000, immutable').type(mediaType);
    response.sendFile(path, { dotfiles: 'allow', cacheControl: false });
  };
  router.get('/:hash', serve);

  router.get('/:hash/:side', async (request, response) => {
    const side = sideOf(request.params.side);
    const path = await store.findSide(request.params.hash, side);
    response.type(SIDE_FILES[side]).set('Cache-Control', 'private, no-cache');
    response.sendFile(path, { dotfiles: 'allow', cacheControl: false });
  });

  router.put(
    '/:hash/:side',
    raw({ type: () => true, limit: '256mb' }),
    async (request, response) => {
      await store.keepSide(
        request.params.hash,
        sideOf(request.params.side),
        request.body as Buffer,
      );
      response.status(204).end();
    },
  );

  return router;
}
