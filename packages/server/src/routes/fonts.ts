/** `/api/fonts/unpack`: a WOFF2 font in, the TrueType or OpenType font it holds out. Nothing is kept. */
import { Router, raw } from 'express';
import { unpackWoff2 } from '@cadence/node/fonts.ts';
import { Problem } from '../problem.ts';

export function fontRoutes(): Router {
  const router = Router();
  router.post('/unpack', raw({ type: () => true, limit: '24mb' }), async (request, response) => {
    const font = await unpackWoff2(request.body as Buffer).catch(() => {
      throw new Problem(
        422,
        'broken-font',
        'Broken font',
        'This WOFF2 font is damaged and cannot be unpacked. It was not taken.',
      );
    });
    response.type('font/ttf').send(Buffer.from(font));
  });
  return router;
}
