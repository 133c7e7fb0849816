import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Router, type Response } from 'express';
import expressStaticGzip from 'express-static-gzip';

/** Headers that every answer carries: nothing from elsewhere, and an isolated page so that workers can share memory. */
export function securityHeaders(response: Response, nonce?: string): void {
  const style = nonce ? `'self' 'nonce-${nonce}'` : `'self'`;
  response.setHeader(
    'Content-Security-Policy',
    `default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src ${style}; img-src 'self' data: blob:; connect-src 'self' blob:; ` +
      `object-src 'none'; base-uri 'self'; form-action 'none'; frame-ancestors 'none'; ` +
      // Text never becomes markup or a script, in workers neither; `default` lets the page's own workers start (web: trusted-scripts).
      `require-trusted-types-for 'script'; trusted-types angular angular#components default`,
  );
  response.setHeader('Cross-Origin-Opener-Policy', 'same-origin');
  response.setHeader('Cross-Origin-Embedder-Policy', 'require-corp');
  response.setHeader('Cross-Origin-Resource-Policy', 'same-origin');
  response.setHeader('X-Content-Type-Options', 'nosniff');
  response.setHeader('Referrer-Policy', 'no-referrer');
}

/** Serves the built page; index.html gets a fresh nonce at every request. */
export function pageRoutes(webFolder: string): Router {
  const router = Router();
  const index = readFileSync(join(webFolder, 'index.html'), 'utf8');
  router.use((request, response, next) => {
    if (request.path === '/index.html') sendIndex(response, index);
    else next();
  });
  // Packed when they were built, where the browser takes that.
  router.use(
    expressStaticGzip(webFolder, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br'],
      serveStatic: { immutable: true, maxAge: '1y', fallthrough: true },
    }),
  );
  // Only paths without an extension are the page's own; a missing script must stay missing.
  router.get('/{*path}', (request, response, next) => {
    if (/\.[a-z0-9]+$/i.test(request.path) || request.path.startsWith('/api/')) next();
    else sendIndex(response, index);
  });
  return router;
}

function sendIndex(response: Response, index: string): void {
  const nonce = randomBytes(16).toString('base64');
  securityHeaders(response, nonce);
  response.setHeader('Cache-Control', 'no-store');
  response.type('html').send(index.replaceAll('STRAVEL_NONCE', nonce));
}
