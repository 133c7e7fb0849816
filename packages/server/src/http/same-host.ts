import type { RequestHandler } from 'express';
import { HttpError } from './problem';

const LOOPBACK_NAMES = ['127.0.0.1', 'localhost', '[::1]'];

/**
 * Refuses requests whose Host or Origin is not the server's own, so that a page from elsewhere cannot reach a server on
 * this machine.
 */
export const onlySameHost: RequestHandler = (request, _response, next) => {
  const port = request.socket.localPort;
  const own = LOOPBACK_NAMES.map((name) => `${name}:${port}`);
  const { host, origin } = request.headers;
  if (host === undefined || !own.includes(host)) {
    throw new HttpError(403, 'HOST_REFUSED', `The host ${String(host)} is not this server's own.`);
  }
  if (origin !== undefined && !own.some((name) => origin === `http://${name}`)) {
    throw new HttpError(403, 'ORIGIN_REFUSED', `The origin ${origin} is not this server's own.`);
  }
  // A page elsewhere may not set off work here by a picture or a link, either.
  const site = request.headers['sec-fetch-site'];
  if (request.path.startsWith('/api/') && (site === 'cross-site' || site === 'same-site')) {
    throw new HttpError(403, 'ORIGIN_REFUSED', 'The request comes from a page elsewhere.');
  }
  next();
};
