import { ENDPOINTS, HoursBody, LogoBody, ShopBody, type ShopView } from '@jubb/wire';
import { Body, Controller, Inject, Req } from '@nestjs/common';
import type { FastifyRequest } from 'fastify';
import { Route } from '../common/route.js';
import { DataSource } from 'typeorm';
import { personOf } from '../common/access.guard.js';
import { hoursFrom, hoursInWords } from '../common/hours.js';
import { badInput, changedSince } from '../common/problem.js';
import { inTransaction } from '../database/data-source.js';
import { KeptFile, Shop } from '../database/entities/index.js';
import { changedFields, keepChange, type InWords } from '../common/changes.js';

/** What the shop asks for its work, and what it renews by its own rule. */
@Controller('api/v1')
export class ShopController {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  /** When it is open: promises and the day go by it. */
  @Route(ENDPOINTS.shop.hours)
  async hours(@Body() { version, week, closed }: HoursBody, @Req() request: FastifyRequest): Promise<ShopView> {
    const hours = hoursFrom(week, closed);
    const before = await shopView(this.dataSource);
    await inTransaction(this.dataSource, async (manager) => {
      const { affected } = await manager.update(Shop, { id: 1, version }, { hours, version: version + 1 });
      if (!affected) throw changedSince('shop', await shopView(this.dataSource));
      const fields = changedFields(hoursInWords(before.hours), hoursInWords(hours));
      if (fields.length > 0) await keepChange(manager, personOf(request), { what: 'shop', subject: before.name, act: 'changed' }, fields);
    });
    return shopView(this.dataSource);
  }

  /** The picture at the head of its quotes and reports. */
  @Route(ENDPOINTS.shop.logo)
  async logo(@Body() { version, file = null }: LogoBody, @Req() request: FastifyRequest): Promise<ShopView> {
    await inTransaction(this.dataSource, async (manager) => {
      const there =
        file === null ? null : await manager.findOne(KeptFile, { where: { sha256: file }, select: { sha256: true, type: true } });
      if (there && there.type !== 'image/jpeg') throw badInput([{ field: 'file', given: there.type, allowed: 'must be a picture' }]);
      const { affected } = await manager.update(Shop, { id: 1, version }, { logo: file, version: version + 1 });
      const shop = await shopView(this.dataSource);
      if (!affected) throw changedSince('shop', shop);
      const act = file === null ? 'logo taken off' : 'has another logo';
      await keepChange(manager, personOf(request), { what: 'shop', subject: shop.name, act }, []);
    });
    return shopView(this.dataSource);
  }

  @Route(ENDPOINTS.shop.change)
  async change(@Body() body: ShopBody, @Req() request: FastifyRequest): Promise<ShopView> {
    const { version, ...change } = body;
    const before = await shopView(this.dataSource);
    await inTransaction(this.dataSource, async (manager) => {
      const { affected } = await manager.update(Shop, { id: 1, version }, { ...change, version: version + 1 });
      if (!affected) throw changedSince('shop', await shopView(this.dataSource));
      const fields = changedFields(inWords(before), inWords(body));
      if (fields.length > 0) await keepChange(manager, personOf(request), { what: 'shop', subject: before.name, act: 'changed' }, fields);
    });
    return shopView(this.dataSource);
  }
}

export async function shopView(dataSource: DataSource): Promise<ShopView> {
  const { id: _one, sessionSecret: _secret, ...shop } = await dataSource.getRepository(Shop).findOneByOrFail({ id: 1 });
  return shop;
}

function inWords({ name, zone, hourlyMinor, taxShare, marginShare, rules, pinDigits }: Omit<ShopBody, 'version'>): InWords {
  return {
    name,
    'time zone': zone,
    'an hour': (hourlyMinor / 100).toFixed(2),
    tax: `${Number((taxShare * 100).toFixed(2))} %`,
    'parts are sold at': `${Number((marginShare * 100).toFixed(2))} % more`,
    rules: rules.map(({ words, why }) => `${words}: ${why}`).join('; '),
    'digits of a PIN': String(pinDigits),
  };
}
