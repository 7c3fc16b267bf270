import type { Part } from '@jubb/sheet';
import type { StockView } from '@jubb/wire';
import { v7 as uuid } from 'uuid';
import type { Client } from './client.ts';

/** A movement of a stock line, taken now. */
export function move(kind: string, quantity: number, more: object = {}): object {
  return { id: uuid(), kind, quantity, takenAt: new Date().toISOString(), ...more };
}

/** A stock line as it is made: a ring. */
export function item(number: string): object {
  return { number, name: 'Ring', kind: 'o-ring', unit: 'piece', minimum: 0, priceMinor: 90 };
}

/** A new stock line that holds so many pieces; its id. */
export async function shelf(client: Client, quantity: number, more: object = {}): Promise<string> {
  const { id } = await client.made<StockView>('/stock', { ...item(`N-${uuid().slice(-8)}`), ...more });
  if (quantity > 0) await client.made(`/stock/${id}/moves`, move('receive', quantity));
  return id;
}

/** The stock line of a part, with so many pieces on it, whatever was there before. */
export async function stocked(client: Client, { number, name }: Pick<Part, 'number' | 'name'>, quantity: number): Promise<StockView> {
  const known = (await client.get<readonly StockView[]>(`/stock?find=${number}`)).find((line) => line.number === number);
  const id = known?.id ?? (await shelf(client, 0, { number, name, location: 'T1-1' }));
  return client.made<StockView>(`/stock/${id}/moves`, move('count', quantity));
}
