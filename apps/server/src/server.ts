import { classSchemas } from '@jubb/sheet/file';
import accepts from '@fastify/accepts';
import compress from '@fastify/compress';
import cookie from '@fastify/cookie';
import session from '@fastify/session';
import files from '@fastify/static';
import { NestFactory } from '@nestjs/core';
import { FastifyAdapter, type NestFastifyApplication } from '@nestjs/platform-fastify';
import { DocumentBuilder, SwaggerModule, type OpenAPIObject } from '@nestjs/swagger';
import helmet, { type HelmetOptions } from 'helmet';
import type { FastifyInstance, FastifyReply, FastifyRequest, HookHandlerDoneFunction, onRequestHookHandler } from 'fastify';
import { randomUUID } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import type { DataSource } from 'typeorm';
import { AppModule } from './app.module.js';
import { HEALTH, door, letRunOut, pathOf, readBodies, readLittleOfNobody } from './common/door.js';
import { ANSWER_SCHEMAS } from './common/answers.js';
import { ProblemError, badInput } from './common/problem.js';
import { answerWith } from './common/problem.filter.js';
import { gathered, requestLog } from './common/request-log.js';
import type { Config } from './config.js';
import { makeDataSource, migrate, poolOf } from './database/data-source.js';
import { Shop } from './database/entities/index.js';
import { RememberingStore, sessionOptions } from './common/session.js';
import { StreamService } from './stream/stream.service.js';

/** Idle connections are kept so long, ms: longer than a proxy or a browser keeps one, for whoever closes first must be the client. */
const KEEP_ALIVE_MS = 75_000;
/** So long a request may take to arrive, ms. */
const ARRIVES_MS = 300_000;
const DOCS = '/api/docs';

/** Connects, migrates and puts the server together; the caller listens. */
export async function makeServer(config: Config): Promise<{ app: NestFastifyApplication; dataSource: DataSource }> {
  await migrate(config.databaseUrl);
  const dataSource = await makeDataSource(config.databaseUrl).initialize();
  const { sessionSecret } = await dataSource.getRepository(Shop).findOneByOrFail({ id: 1 });

  const adapter = new FastifyAdapter({
    genReqId: () => randomUUID(),
    trustProxy: config.proxies.length > 0 && [...config.proxies],
    keepAliveTimeout: KEEP_ALIVE_MS,
    requestTimeout: ARRIVES_MS,
    // What is under way when the server ends is answered.
    return503OnClosing: false,
    frameworkErrors: (_error: unknown, _request: unknown, reply: FastifyReply) =>
      answerWith(reply, badInput([{ field: 'address', allowed: 'is not written as an address is' }]).problem),
    // No route here asks for middleware of the older kind.
    skipMiddie: true,
  });
  const app = await NestFactory.create<NestFastifyApplication>(AppModule.over(config, dataSource), adapter, {
    logger: ['error', 'warn'],
    bodyParser: false,
  });
  const sessions = new RememberingStore(poolOf(dataSource));
  app.get(StreamService).events.subscribe((event) => {
    if (event.type === 'session-over') sessions.forget(event.session);
  });
  app.enableShutdownHooks();
  const fastify = adapter.getInstance() as unknown as FastifyInstance;
  fastify.addHook('onResponse', requestLog(gathered((lines) => process.stdout.write(lines))));
  fastify.addHook('onRequest', begin);
  readBodies(fastify);
  compressReads(fastify);
  await fastify.register(compress, { encodings: ['gzip', 'deflate'] });
  await fastify.register(accepts);
  await fastify.register(cookie);
  await fastify.register(session, sessionOptions(sessions, sessionSecret));
  fastify.addHook('onRequest', requestLimit(config.requestsPer10s));
  fastify.addHook('onRequest', docsOfTheShop);
  fastify.addHook('preParsing', readLittleOfNobody);
  fastify.addHook('preValidation', door);
  fastify.addHook('onSend', letRunOut);
  if (config.webRoot) await serveShell(fastify, config.webRoot);
  SwaggerModule.setup(DOCS.slice(1), app, () => apiDocument(app, config.version), {
    jsonDocumentUrl: 'api/docs/json',
    yamlDocumentUrl: 'api/docs/yaml',
  });
  await app.init();
  await fastify.ready();
  return { app, dataSource };
}

const isOfApi = (request: FastifyRequest): boolean => request.url.startsWith('/api');

/** Before everything else: answers of the API are kept nowhere, and the page's files and health need no session. */
function begin(request: FastifyRequest, reply: FastifyReply, next: HookHandlerDoneFunction): void {
  void reply.headers(isOfApi(request) ? OF_API : OF_SHELL);
  // A session would have to come from the database.
  if (!isOfApi(request) || pathOf(request) === HEALTH) delete request.headers.cookie;
  next();
}

/** What is read can be long; the answer to a change is short. */
function compressReads(fastify: FastifyInstance): void {
  fastify.addHook('onRoute', (route) => {
    if (![route.method].flat().includes('GET')) route.compress = false;
  });
}

const SECURITY: HelmetOptions = {
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
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
    },
  },
  strictTransportSecurity: false,
};

/** The same with every answer, so that they are worked out once. */
const OF_SHELL = headersOf(SECURITY);
const OF_API = { ...OF_SHELL, 'Cache-Control': 'no-store' };

function headersOf(options: HelmetOptions): Readonly<Record<string, string>> {
  const headers: Record<string, string> = {};
  const setHeader = (name: string, value: string): void => void (headers[name] = value);
  helmet(options)({} as IncomingMessage, { setHeader, removeHeader: () => undefined } as unknown as ServerResponse, () => undefined);
  return headers;
}

/** The document is for people of the shop; its page writes styles of its own. */
const docsOfTheShop: onRequestHookHandler = (request, reply, next) => {
  if (!request.url.startsWith(DOCS)) return next();
  if (!request.session.person) return next(new ProblemError('log-in-first'));
  const policy = String(reply.getHeader('content-security-policy')).replace("style-src 'self'", "style-src 'self' 'unsafe-inline'");
  void reply.header('content-security-policy', policy);
  next();
};

/** Files of the page by their endings: a place of the application may have a dot in it too, as a working has. */
const FILE = /\.(?:css|html|ico|js|map|svg|webmanifest|woff2)$/u;

/** The page itself: files with a hash in their name for a year, the shell always asked for. Looked for when they are asked for: a new build may come under a server that runs. */
async function serveShell(fastify: FastifyInstance, webRoot: string): Promise<void> {
  await fastify.register(files, {
    root: webRoot,
    serve: false,
    cacheControl: false,
    setHeaders: (response, path) =>
      void response.header('Cache-Control', path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache'),
  });
  fastify.get<{ Params: { '*': string } }>('/*', (request, reply) => {
    const path = request.params['*'];
    if (isOfApi(request)) reply.callNotFound();
    else if (FILE.test(path)) return reply.sendFile(path);
    else if (request.accepts().type(['html'])) return reply.sendFile('index.html');
    else reply.callNotFound();
  });
}

function requestLimit(per10s: number): onRequestHookHandler {
  const limiter = new RateLimiterMemory({ points: per10s, duration: 10 });
  return (request, _reply, next) => {
    if (!isOfApi(request)) return next();
    limiter.consume(request.session.person?.id ?? request.ip).then(
      () => next(),
      () => next(new ProblemError('too-many-requests')),
    );
  };
}

/** OpenAPI from the routes: what they take by the classes that check it, what they answer by its types. */
function apiDocument(app: NestFastifyApplication, version: string): OpenAPIObject {
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
