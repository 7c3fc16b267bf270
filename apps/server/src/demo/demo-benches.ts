import type { OpenHours, PersonView } from '@jubb/book';
import type { BenchKind } from '@jubb/sheet';
import type { EntityManager } from 'typeorm';
import { BenchRow, JobBench, type Person } from '../database/entities/index.js';

/** By its neighbours' wish: its fan is loud. */
const BY_DAY: OpenHours = { from: '08:00', to: '15:00' };
const TO_NOON: OpenHours = { from: '08:00', to: '12:00' };

const BENCHES: readonly (readonly [name: string, kind: BenchKind])[] = [
  ['Bench 1, by the window', 'bench'],
  ['Bench 2', 'bench'],
  ['Bench 3, clean room', 'bench'],
  ['Press, 20 t', 'press'],
  ['Oven to 250 °C', 'oven'],
  ['Hoist, 1 t', 'lift'],
  ['Test stand', 'test stand'],
];

/** Who runs the test stand: nobody who is learning yet. */
const AT_THE_STAND = ['ilka', 'bram', 'tova', 'oswin'];

/** Benches and machines of the shop, and the jobs whose units stand there, the one named first at the first. */
export async function loadBenches(
  manager: EntityManager,
  staff: ReadonlyMap<string, PersonView>,
  jobIds: readonly string[],
): Promise<void> {
  const stand = AT_THE_STAND.flatMap((login) => staff.get(login) ?? []).map(({ id }) => ({ id }) as Person);
  const rows = await manager.save(
    BenchRow,
    BENCHES.map(([name, kind]) => ({
      ...{ name, kind },
      hours: kind === 'test stand' ? { week: [BY_DAY, BY_DAY, BY_DAY, BY_DAY, TO_NOON, null, null], closed: [] } : null,
      who: kind === 'test stand' ? stand : [],
    })),
  );
  const free = rows.filter(({ kind }) => kind === 'bench');
  await manager.insert(
    JobBench,
    jobIds.slice(0, free.length).map((jobId, at) => ({ jobId, benchId: free[at]!.id })),
  );
}
