/** Who may speak to the server: pages of its own, on this machine. */
import type { RequestHandler } from 'express';
import helmet from 'helmet';
import { Problem } from './problem.ts';

const here = new Set(['127.0.0.1', 'localhost', '[::1]']);

/** The host name in a Host header, without its port. */
const hostName = (host: string): string => host.replace(/:\d+$/, '');

/**
 * Refuses a Host that is not this machine (so that a foreign name cannot be made to point here) and
 * an Origin other than the host the request came to.
 */
export const onlyFromHere: RequestHandler = (request, _response, next) => {
  const host = request.headers.host ?? '';
  const { origin } = request.headers;
  const foreign =
    !here.has(hostName(host)) || (origin !== undefined && origin !== `http://${host}`);
  next(
    foreign
      ? new Problem(403, 'foreign', 'Not from here', 'Only pages of this application may ask.')
      : undefined,
  );
};

/** Headers that keep pages to themselves. WebAssembly shapes text; styles are set by components. */
export const headers = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'none'"],
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
      workerSrc: ["'self'", 'blob:'],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      mediaSrc: ["'self'", 'blob:'],
      fontSrc: ["'self'"],
      connectSrc: ["'self'", 'blob:'],
      manifestSrc: ["'self'"],
      baseUri: ["'none'"],
      formAction: ["'none'"],
      frameAncestors: ["'none'"],
    },
  },
  crossOriginEmbedderPolicy: false,
  strictTransportSecurity: false,
});
