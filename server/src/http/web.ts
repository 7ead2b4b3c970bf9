import express, { Router } from 'express';
import { existsSync } from 'node:fs';
import { join } from 'node:path';

const A_YEAR_S = 31_536_000;

/**
 * Serves the built web application: files with a hash in their name for a year, the page itself always
 * asked for anew, and the page for every address that is no file, since the app routes by itself.
 */
export function webRoutes(folder: string): Router {
  const router = Router();
  router.use(
    express.static(folder, {
      index: false,
      setHeaders: (response, path) => {
        const isHashed = path.includes('/_expo/static/') || path.includes('/fonts/');
        response.setHeader(
          'Cache-Control',
          isHashed ? `public, max-age=${A_YEAR_S}, immutable` : 'no-cache',
        );
      },
    }),
  );
  router.get('/{*path}', (request, response, next) => {
    const page = join(folder, 'index.html');
    if (!request.accepts('html') || /\.\w{2,5}$/.test(request.path) || !existsSync(page)) {
      next();
      return;
    }
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(page);
  });
  return router;
}
