import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
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
import { type House, type Mounted, hostName, isThisMachine, mountAll, serverTime } from './mount.ts';
import { problem, tellProblem } from './problems.ts';

/** Every endpoint with what answers it. */
export const ROUTES: readonly Mounted[] = [
  ...kitchenRoutes,
  ...recipeRoutes,
  ...storeRoutes,
  ...batchRoutes,
  ...checkRoutes,
  ...labelRoutes,
  ...recordRoutes,
];

/**
 * The whole server as an Express application.
 *
 * @param webDist  folder of the built interface; null serves the API alone
 */
export function makeApp(house: House, webDist: string | null): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  // Nothing of the API is kept by a browser, and files have names that change with them.
  app.set('etag', false);
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
      // The policy's frame-ancestors forbids framing; a second header would say something else.
      xFrameOptions: false,
    }),
  );
  app.use(refuseOtherNames(house.names));
  const api = express.Router();
  api.use(serverTime(house.clock));
  api.use((_req, res, next) => {
    res.setHeader('Cache-Control', 'no-store');
    next();
  });
  api.use(refuseOtherOrigins);
  api.use(compression({ threshold: WORTH_COMPRESSING_BYTES }));
  mountAll(api, [...ROUTES], ENDPOINTS, house);
  api.get('/api/openapi.json', (_req, res) => void res.json(openApi()));
  api.get('/api/health', (req, res) =>
    res.json({
      ok: true,
      ...(isThisMachine(req) ? { turnedAway: house.database.counts(), held_ms: house.held_ms() } : {}),
    }),
  );
  api.use('/api', () => {
    throw problem(404, {
      code: 'unknown-route',
      what: 'There is no such call.',
      why: 'The address or the method is mistyped.',
      next: 'Look in /api/openapi.json.',
    });
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

/** Below this a packed reply saves no packet of the network worth the work. */
const WORTH_COMPRESSING_BYTES = 4096;

/** Answers only to the names the server was told: a page elsewhere cannot point a name of its own at this machine. */
function refuseOtherNames(names: readonly string[]) {
  const known = new Set(names);
  return (req: express.Request, _res: express.Response, next: express.NextFunction): void => {
    const name = hostName(req.headers.host);
    if (name !== null && known.has(name)) return next();
    throw problem(421, {
      code: 'other-name',
      what: 'This server does not go by that name.',
      why: 'It answers only to names it was told, so that no page elsewhere can reach it under one of its own.',
      next: 'Open it by its own address, or add the name to COCOTTE_NAMES and start it again.',
    });
  };
}

/** A browser says where a call comes from; a call that changes something from elsewhere is refused. */
function refuseOtherOrigins(req: express.Request, _res: express.Response, next: express.NextFunction): void {
  if (req.method === 'GET' || req.method === 'HEAD') return next();
  const { origin, host } = req.headers;
  const site = req.headers['sec-fetch-site'];
  const foreign =
    origin !== undefined && (!URL.canParse(origin) || new URL(origin).host !== host?.toLowerCase());
  if (foreign || (site !== undefined && site !== 'same-origin' && site !== 'none')) {
    throw problem(403, {
      code: 'other-origin',
      what: 'This call comes from another site.',
      why: 'Only the interface itself may change things.',
      next: 'Open the interface and do it there.',
    });
  }
  next();
}
