import { Body, Controller, Inject, Put } from '@nestjs/common';
import { ShopBody, type ShopView } from '@jubb/contract';
import { DataSource } from 'typeorm';
import { Shop } from '../database/entities.js';

/** What the shop asks for its work, and what it renews by its own rule. */
@Controller('api/v1/shop')
export class ShopController {
  constructor(@Inject(DataSource) private readonly dataSource: DataSource) {}

  @Put()
  async change(@Body() body: ShopBody): Promise<ShopView> {
    await this.dataSource.getRepository(Shop).update(1, body);
    return shopView(this.dataSource);
  }
}

export async function shopView(dataSource: DataSource): Promise<ShopView> {
  const { id: _one, sessionSecret: _secret, ...shop } = await dataSource.getRepository(Shop).findOneByOrFail({ id: 1 });
  return shop;
}
