import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { jobReport, type EarlierView, type JobView, type NewEntry, type Problem } from '@jubb/contract';
import { Client, entry } from '../kit/client.ts';
import { freshDatabase } from '../kit/database.ts';
import { startServer, type RunningServer } from '../kit/server.ts';

let database: Awaited<ReturnType<typeof freshDatabase>>;
let server: RunningServer;
let ilka: Client;

beforeAll(async () => {
  database = await freshDatabase();
  server = await startServer(database.url);
  ilka = await Client.as(server.base, 'ilka');
});
afterAll(async () => {
  await server.stop();
  await database.drop();
});

const jobOn = async (key: string): Promise<string> => (await ilka.booked((await ilka.sheetKeyed(key)).revisionId)).id;
/** What is said against entries, by field; nothing when they were kept. */
const against = async (id: string, ...entries: NewEntry[]): Promise<string> => {
  const { body } = await ilka.post<Problem>(id, ...entries);
  return (body.errors ?? []).map(({ field, allowed }) => `${field} ${allowed}`).join('; ');
};

describe('fasteners that are new each time', () => {
  const pull = (rest: object = {}): NewEntry =>
    entry(
      'pull',
      {
        ...{ joint: 'flange-front', pass: 1, place: 0, torque: 22, result: 'clicked' },
        ...{ wrenchLength: 450, adapterLength: 0, adapterAngle: 0, ...rest },
      },
      { step: 'on-the-machine' },
    );

  test('are not pulled before the new ones were seen, also in one batch in the wrong order', async () => {
    const id = await jobOn('ostrel-ps2-propeller-shaft');
    const seen = entry('replacement-here', { seen: '4 new, out of the kit' }, { step: 'on-the-machine' });
    expect(await against(id, pull())).toContain('new each time: say first that the new ones are here');
    expect(await against(id, pull(), seen)).toContain('new each time');
    expect((await ilka.get<JobView>(`/jobs/${id}`)).entries).toEqual([]);
    expect(await against(id, seen, pull())).toBe('');
  });

  test('one that no wrench reaches is printed as such, with the reason', async () => {
    const id = await jobOn('ostrel-ps2-propeller-shaft');
    const seen = entry('replacement-here', { seen: '4 new' }, { step: 'on-the-machine' });
    expect(await against(id, seen, pull({ torque: 0, note: 'the tube is in the way' }))).toBe('');
    const report = JSON.stringify(jobReport(await ilka.get<JobView>(`/jobs/${id}`), { at: String, day: String }));
    expect(report).toContain('by hand, unmeasured');
    expect(report).toContain('the tube is in the way');
  });
});

describe('a contact pattern', () => {
  const spots = { setting: 'backlash', driveAlong: 'heel', driveUp: 'face', coastAlong: 'toe', coastUp: 'face' };
  const moved = (rest: object = {}): NewEntry =>
    entry('gear-moved', { setting: 'backlash', gear: 'pinion', by: 0.05, undone: [], ...rest });

  test('is judged by the server, with the step that the last move showed', async () => {
    const id = await jobOn('ostrel-d44-drive-axle');
    expect(await against(id, entry('pattern', { ...spots, pinionStep: 0.2 }), moved({ undone: ['cap-screws'] }))).toBe('');
    const job = await ilka.get<JobView>(`/jobs/${id}`);
    expect(job.entries[0]?.working).toMatchObject({ id: 'gear.contact', output: { verdict: 'out', pinion: expect.closeTo(0.2, 9) } });
    const report = JSON.stringify(jobReport(job, { at: String, day: String }));
    expect(report).toContain('drive at the heel, up at the face; coast at the toe, up at the face: out');
    expect(report).toContain('Pinion 0.05 mm deeper; undone for it: Bearing cap screws');
  });

  test.each<readonly [string, NewEntry, string]>([
    ['a place that no tooth has', entry('pattern', { ...spots, driveUp: 'root' }), 'payload.driveUp'],
    ['gears that the sheet does not have', entry('pattern', { ...spots, setting: 'crown' }), 'is not among the settings of the sheet'],
    ['a move of nothing', moved({ by: 0 }), 'nothing was moved'],
    ['a move of another unit', moved({ by: 5 }), 'payload.by'],
    ['a joint that the sheet does not have', moved({ undone: ['lid'] }), 'must be joints of the sheet: cover-screws'],
  ])('%s is refused', async (_, wrong, words) => {
    const id = await jobOn('ostrel-d44-drive-axle');
    expect(await against(id, wrong)).toContain(words);
    expect((await ilka.get<JobView>(`/jobs/${id}`)).entries).toEqual([]);
  });
});

describe('fits', () => {
  const measured = (shaft: string): NewEntry =>
    entry('worked', {
      working: 'fit.measured',
      input: { shaft, bore: '40 mm', wanted: 'figures', from: '0.004 mm', to: '0.03 mm', shaftU: '0.001 mm', boreU: '0.001 mm' },
      fit: 'head-bearing',
    });
  const home = (rest: object = {}): NewEntry =>
    entry('fitted', { fit: 'head-bearing', by: 'press', driver: 'tube 42', home: 'the note changed', ...rest });

  test('go home once they are measured; one that is not what is wanted only with the reason', async () => {
    const id = await jobOn('ostrel-d44-drive-axle');
    expect(await against(id, home())).toContain('payload.fit is not measured yet');
    expect(await against(id, measured('40.06 mm'), home())).toContain('payload.note is missing: the fit is out');
    expect(await against(id, measured('40.06 mm'), home({ note: 'the foreman looked at it' }))).toBe('');
    expect(await against(id, measured('40.015 mm'), home())).toBe('');
    expect(await against(id, home({ fit: 'no-such' }))).toContain('payload.fit is not among the fits of the sheet');
  });
});

test('what other jobs of a sheet came to is there for the next one, struck entries are not', async () => {
  const read = (nm: number): NewEntry =>
    entry('end-play', { setting: 'pinion-preload', moment: 'locked', readings: [nm, nm, nm], unit: 'N·m' }, { step: 'preload-set' });
  const ids = [await jobOn('ostrel-d44-drive-axle'), await jobOn('ostrel-d44-drive-axle'), await jobOn('ostrel-d44-drive-axle')];
  const wrong = read(3);
  await ilka.post(ids[0]!, read(2.4));
  await ilka.post(ids[1]!, read(2.6), wrong, entry('strike', { reason: 'another shaft' }, { strikes: wrong.id }));
  const before = await ilka.get<EarlierView>(`/jobs/${ids[2]!}/worked-before`);
  expect(before.settings.find(({ setting }) => setting === 'pinion-preload')).toMatchObject({
    left: { count: 2, median: 2.5, from: 2.4, to: 2.6 },
  });
  expect((await ilka.get<EarlierView>(`/jobs/${ids[0]!}/worked-before`)).settings).toMatchObject([{ left: { count: 1, median: 2.6 } }]);
});
