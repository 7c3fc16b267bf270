import { classSchemas } from '@jubb/sheet/file';
import { join } from 'node:path';
import type { INestApplication } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule, type OpenAPIObject } from '@nestjs/swagger';
import compression from 'compression';
import express, { type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import type { DataSource } from 'typeorm';
import { AppModule } from './app.module.js';
import { door, readJson } from './common/door.js';
import { ANSWER_SCHEMAS } from './common/answers.js';
import { ProblemError } from './common/problem.js';
import { requestLog } from './common/request-log.js';
import type { Config } from './config.js';
import { makeDataSource, migrate, poolOf } from './database/data-source.js';
import { Shop } from './database/entities/index.js';
import { makeSessions } from './common/session.js';
import { StreamService } from './stream/stream.service.js';

/** Idle connections are kept so long, ms. */
const KEEP_ALIVE_MS = 75_000;
const YEAR_MS = 365 * 24 * 3600 * 1000;

/** Connects, migrates and puts the server together; the caller listens. */
export async function makeServer(config: Config): Promise<{ app: INestApplication; dataSource: DataSource }> {
  await migrate(config.databaseUrl);
  const dataSource = await makeDataSource(config.databaseUrl).initialize();
  const { sessionSecret } = await dataSource.getRepository(Shop).findOneByOrFail({ id: 1 });

  const app = await NestFactory.create<NestExpressApplication>(AppModule.over(config, dataSource), {
    logger: ['error', 'warn'],
    bodyParser: false,
  });
  const sessions = makeSessions(poolOf(dataSource), sessionSecret);
  app.get(StreamService).events.subscribe((event) => {
    if (event.type === 'session-over') sessions.forget(event.session);
  });
  app.set('trust proxy', config.proxies);
  app.disable('x-powered-by');
  app.enableShutdownHooks();
  app.use(securityHeaders());
  app.set('etag', false);
  app.use(compressReads());
  if (config.webRoot) serveShell(app, config.webRoot);
  app.use(
    '/api',
    requestLog((line) => process.stdout.write(line)),
    noStore,
    exceptHealth(sessions.middleware),
    requestLimit(config.requestsPer10s),
    readJson(),
    whenLoggedIn(
      express.raw({ type: 'application/pdf', limit: '20mb' }),
      express.raw({ type: 'application/octet-stream', limit: '600kb' }),
    ),
    // Instruments have a key of their own, and no session.
    express.raw({ type: 'application/x-ndjson', limit: '200kb' }),
    door,
  );
  app.use('/api/docs', onlyLoggedIn);
  SwaggerModule.setup('api/docs', app, () => apiDocument(app, config.version), {
    jsonDocumentUrl: 'api/docs/json',
    yamlDocumentUrl: 'api/docs/yaml',
  });
  await app.init();
  // Longer than a proxy or a browser keeps an idle connection: whoever closes first must be the client.
  app.getHttpServer().keepAliveTimeout = KEEP_ALIVE_MS;
  return { app, dataSource };
}

/** What is read can be long; the answer to a change is short, and an event is to go out at once. */
function compressReads(): express.RequestHandler {
  const compress = compression({
    filter: (request, response) => response.getHeader('Content-Type') !== 'text/event-stream' && compression.filter(request, response),
  });
  return (request, response, next) => (request.method === 'GET' ? compress(request, response, next) : next());
}

function securityHeaders(): express.RequestHandler {
  const directives = {
    defaultSrc: ["'self'"],
    scriptSrc: ["'self'"],
    styleSrc: ["'self'"],
    imgSrc: ["'self'", 'data:', 'blob:'],
    mediaSrc: ["'self'", 'blob:'],
    connectSrc: ["'self'"],
    objectSrc: ["'none'"],
    baseUri: ["'none'"],
    frameAncestors: ["'none'"],
    formAction: ["'self'"],
    // The shop's own network has no certificate; asking for one would break the page there.
    upgradeInsecureRequests: null,
  };
  const strict = helmet({ contentSecurityPolicy: { useDefaults: false, directives }, strictTransportSecurity: false });
  const forDocs = helmet({
    contentSecurityPolicy: { useDefaults: false, directives: { ...directives, styleSrc: ["'self'", "'unsafe-inline'"] } },
    strictTransportSecurity: false,
  });
  return (request, response, next) => (request.path.startsWith('/api/docs') ? forDocs : strict)(request, response, next);
}

/** Health is told without a session, which would have to come from the database. */
function exceptHealth(middleware: express.RequestHandler): express.RequestHandler {
  return (request, response, next) => (request.path === '/v1/health' ? next() : middleware(request, response, next));
}

/** Files are read of people of the shop alone: nobody else's bytes are taken in. */
function whenLoggedIn(...handlers: readonly express.RequestHandler[]): express.RequestHandler {
  const router = express.Router().use(...handlers);
  return (request, response, next) => (request.session?.person ? router(request, response, next) : next());
}

function noStore(_request: Request, response: Response, next: NextFunction): void {
  response.setHeader('Cache-Control', 'no-store');
  next();
}

/** The page itself: files with a hash in their name for a year, the shell always asked for. */
function serveShell(app: NestExpressApplication, webRoot: string): void {
  app.use('/assets', express.static(join(webRoot, 'assets'), { immutable: true, maxAge: YEAR_MS, fallthrough: false }));
  const files = express.static(webRoot, { index: false, maxAge: 0 });
  app.use((request: Request, response: Response, next: NextFunction) => {
    // No look at the disk for a call of the API.
    if (request.path.startsWith('/api')) return next();
    files(request, response, () => {
      const isPage = request.method === 'GET' && request.accepts('html');
      if (isPage) response.sendFile(join(webRoot, 'index.html'), { headers: { 'Cache-Control': 'no-cache' } });
      else next();
    });
  });
}

function requestLimit(per10s: number): express.RequestHandler {
  const limiter = new RateLimiterMemory({ points: per10s, duration: 10 });
  return (request, _response, next) => {
    limiter.consume(request.session?.person?.id ?? request.ip ?? '').then(
      () => next(),
      () => next(new ProblemError('too-many-requests')),
    );
  };
}

function onlyLoggedIn(request: Request, _response: Response, next: NextFunction): void {
  next(request.session.person ? undefined : new ProblemError('log-in-first'));
}

/** OpenAPI from the routes: what they take by the classes that check it, what they answer by its types. */
function apiDocument(app: INestApplication, version: string): OpenAPIObject {
  const document = SwaggerModule.createDocument(
    app,
    new DocumentBuilder().setTitle('Jubb').setVersion(version).addCookieAuth('jubb').build(),
  );
  document.components = {
    ...document.components,
    schemas: { ...document.components?.schemas, ...(classSchemas('#/components/schemas/') as object), ...(ANSWER_SCHEMAS.all() as object) },
  };
  return document;
}
