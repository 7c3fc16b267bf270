import { ENDPOINTS, type NetworkView } from '@jubb/wire';
import { X509Certificate } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { Controller, Inject, Req, Res } from '@nestjs/common';
import type { FastifyReply, FastifyRequest } from 'fastify';
import QRCode from 'qrcode';
import { notFound } from '../common/problem.js';
import { Route } from '../common/route.js';
import type { Config } from '../config.js';
import { CONFIG } from '../tokens.js';

/** How the tablets of the shop's network come here. */
@Controller('api/v1')
export class NetworkController {
  constructor(@Inject(CONFIG) private readonly config: Config) {}

  @Route(ENDPOINTS.tablet.network)
  async view(@Req() request: FastifyRequest): Promise<NetworkView> {
    const { secure = [], trust = null, authority } = this.config.lan ?? {};
    const isSecure = request.protocol === 'https';
    return { secure, trust, fingerprint: authority === undefined ? null : await fingerprintOf(authority), isSecure };
  }

  /** What a tablet scans: where it comes to trust the shop, or the shop itself. */
  @Route(ENDPOINTS.tablet.code)
  async code(@Res() reply: FastifyReply): Promise<void> {
    const { secure = [], trust } = this.config.lan ?? {};
    const address = trust ?? secure[0];
    if (address === undefined) throw notFound('network');
    await reply.type('image/svg+xml').send(await QRCode.toString(address, { type: 'svg', errorCorrectionLevel: 'M' }));
  }
}

/** None until the authority was made, which is a moment after the first start. */
async function fingerprintOf(authority: string): Promise<string | null> {
  const pem = await readFile(authority).catch(() => undefined);
  return pem ? new X509Certificate(pem).fingerprint256 : null;
}
