import { dayIn } from '@jubb/sheet';
import type { DataSource } from 'typeorm';
import { ask } from '../database/data-source.js';
import { TODAY } from './shop-day.sql.js';

export interface ShopDay {
  readonly zone: string;
  /** Today where the shop stands: "2027-03-01". */
  readonly today: string;
}

/** The day it is in the shop, by the database's clock; UTC while there is no shop. */
export async function shopDay({ manager }: Pick<DataSource, 'manager'>): Promise<ShopDay> {
  const [row] = await ask<ShopDay>(manager, TODAY);
  return row ?? { zone: 'UTC', today: dayIn('UTC', Date.now()) };
}
