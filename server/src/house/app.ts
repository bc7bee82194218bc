import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { JSON_LIMIT } from '@cocotte/contract';
import { openApi } from '@cocotte/contract/openapi';
import { ENDPOINTS } from '@cocotte/contract/table';
import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { batchRoutes } from '../batches/routes.ts';
import { checkRoutes } from '../checks/routes.ts';
import { kitchenRoutes } from '../kitchen/routes.ts';
import { labelRoutes } from '../labels/routes.ts';
import { recipeRoutes } from '../recipes/routes.ts';
import { recordRoutes } from '../records/routes.ts';
import { storeRoutes } from '../stores/routes.ts';
import { type House, mountAll, serverTime } from './mount.ts';
import { problem, tellProblem } from './problems.ts';

/**
 * The whole server as an Express application.
 *
 * @param webDist  folder of the built interface; null serves the API alone
 */
export function makeApp(house: House, webDist: string | null): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  app.use((_req, res, next) => {
    res.locals.requestId = randomUUID();
    res.setHeader('request-id', res.locals.requestId as string);
    next();
  });
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          frameAncestors: ["'none'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: house.secure,
    }),
  );
  const api = express.Router();
  api.use(serverTime(house.clock));
  api.use((_req, res, next) => {
    res.setHeader('Cache-Control', 'no-store');
    next();
  });
  api.use(refuseOtherOrigins);
  api.use(express.json({ limit: JSON_LIMIT }));
  mountAll(
    api,
    [
      ...kitchenRoutes,
      ...recipeRoutes,
      ...storeRoutes,
      ...batchRoutes,
      ...checkRoutes,
      ...labelRoutes,
      ...recordRoutes,
    ],
    ENDPOINTS,
    house,
  );
  api.get('/api/openapi.json', (_req, res) => void res.json(openApi()));
  api.get('/api/health', (_req, res) => void res.json({ ok: true }));
  api.use('/api', () => {
    throw problem(
      404,
      'unknown-route',
      'There is no such call.',
      'The address or the method is mistyped.',
      'Look in /api/openapi.json.',
    );
  });
  app.use(api);
  if (webDist && existsSync(join(webDist, 'index.html'))) {
    app.use(compression());
    app.use(
      '/assets',
      express.static(join(webDist, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
    );
    app.use(express.static(webDist, { index: false }));
    app.get('/{*view}', (_req, res) =>
      res.setHeader('Cache-Control', 'no-cache').sendFile(join(webDist, 'index.html')),
    );
  }
  app.use(tellProblem);
  return app;
}

/** A browser says where a call comes from; a call that changes something from elsewhere is refused. */
function refuseOtherOrigins(req: express.Request, _res: express.Response, next: express.NextFunction): void {
  if (req.method === 'GET' || req.method === 'HEAD') return next();
  const { origin, host } = req.headers;
  const site = req.headers['sec-fetch-site'];
  const foreign = origin !== undefined && (origin === 'null' || new URL(origin).host !== host);
  if (foreign || (site !== undefined && site !== 'same-origin' && site !== 'none')) {
    throw problem(
      403,
      'other-origin',
      'This call comes from another site.',
      'Only the interface itself may change things.',
      'Open the interface and do it there.',
    );
  }
  next();
}
