import { dayIn } from '@jubb/sheet';
import type { DataSource } from 'typeorm';

export interface ShopDay {
  readonly zone: string;
  /** Today where the shop stands: "2027-03-01". */
  readonly today: string;
}

/** The day it is in the shop, by the database's clock; UTC while there is no shop. */
export async function shopDay(dataSource: Pick<DataSource, 'query'>): Promise<ShopDay> {
  const [row] = await dataSource.query<ShopDay[]>(`SELECT zone, (now() AT TIME ZONE zone)::date::text AS today FROM shop`);
  return row ?? { zone: 'UTC', today: dayIn('UTC', Date.now()) };
}
