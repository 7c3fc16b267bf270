import { ENDPOINTS, ShopBody, type ShopView } from '@jubb/wire';
import { Body, Controller, Inject } from '@nestjs/common';
import { Route } from '../common/route.js';
import { DataSource } from 'typeorm';
import { changedSince } from '../common/problem.js';
import { Shop } from '../database/entities/index.js';

/** What the shop asks for its work, and what it renews by its own rule. */
@Controller('api/v1')
export class ShopController {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  @Route(ENDPOINTS.shop.change)
  async change(@Body() body: ShopBody): Promise<ShopView> {
    const { version, ...change } = body;
    const { affected } = await this.dataSource.getRepository(Shop).update({ id: 1, version }, { ...change, version: version + 1 });
    if (!affected) throw changedSince('shop', await shopView(this.dataSource));
    return shopView(this.dataSource);
  }
}

export async function shopView(dataSource: DataSource): Promise<ShopView> {
  const { id: _one, sessionSecret: _secret, ...shop } = await dataSource.getRepository(Shop).findOneByOrFail({ id: 1 });
  return shop;
}
