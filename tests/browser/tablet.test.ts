import { isKind, type AnyKeptEntry, type JobView } from '@jubb/book';
import { LONGEST_CLIP_S } from '@jubb/sheet';
import type { SessionView } from '@jubb/wire';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ElementHandle } from 'puppeteer-core';
import { Hand } from '../kit/browser.ts';
import { Client, entry } from '../kit/client.ts';
import { paired } from '../kit/instrument.ts';
import { ownShop } from '../kit/shop.ts';
import { codeOf } from '../kit/telephone.ts';

const shop = ownShop();
let api: Client;
let folder: string;

beforeAll(async () => {
  api = await Client.as(shop.server.base, 'ilka');
  folder = mkdtempSync(join(tmpdir(), 'jubb-tablet-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Somebody at bench view of a fresh job on a sheet, at a step. */
async function atBench(
  key: string,
  step: string,
  login = 'ilka',
): Promise<{ hand: Hand; id: string; entries: () => Promise<readonly AnyKeptEntry[]> }> {
  const { id } = await api.bookedOn(key);
  await api.workTo(id, step);
  const hand = await Hand.at(shop.screen.browser, shop.server.base, `/bench/${id}`);
  await hand.logIn(login);
  await hand.page.waitForSelector('.bench h1');
  return { hand, id, entries: async () => (await api.get<JobView>(`/jobs/${id}`)).entries };
}

const isLive = (hand: Hand): Promise<unknown> =>
  hand.page.waitForFunction(() => document.querySelector<HTMLElement>('[role="status"].soft')?.innerText === 'live');

/** Waits until the server has an entry that fits. */
async function arrives(entries: () => Promise<readonly AnyKeptEntry[]>, fits: (one: AnyKeptEntry) => boolean): Promise<AnyKeptEntry> {
  for (let tries = 0; tries < 100; tries += 1) {
    const found = (await entries()).find(fits);
    if (found) return found;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('it does not arrive');
}

const HUB = 'harrowmere-th6-front-hub';

/** Somebody logs in on this tablet with their password and leaves it to Ilka again: from then on their PIN will do here. */
async function wasHere(hand: Hand, login: string): Promise<void> {
  await hand.page.evaluate(async (other) => {
    for (const one of [other, 'ilka'])
      await fetch('/api/v1/session', {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-jubb-csrf': 'none' },
        body: JSON.stringify({ login: one, password: 'bench-417' }),
      });
  }, login);
  await hand.page.reload();
}

describe('one tablet', () => {
  test('is taken over by PIN in seconds; what the one before held without a link arrives as theirs', async () => {
    const { hand, id, entries } = await atBench(HUB, 'wheel-off');
    await wasHere(hand, 'bram');
    await isLive(hand);
    await hand.cut(true);
    await hand.press('n');
    await hand.fill('What should be remembered', 'held by Ilka');
    await hand.press('Enter');
    await hand.sees('1 held, no link');
    await hand.cut(false);
    await hand.press('i');
    await hand.sees('Bram Estelow');
    expect(await hand.faults()).toEqual([]);
    const began = Date.now();
    await hand.press('1', '4', '1', '7', '1');
    await hand.sees('is not the PIN of this person');
    await hand.press('4', '1', '7', '0');
    await hand.page.waitForFunction(() => document.querySelector<HTMLElement>('.person-key')?.innerText.startsWith('Bram'));
    // The wrong one is in it too.
    expect(Date.now() - began).toBeLessThan(15_000);
    await hand.page.waitForSelector('.bench h1');
    await hand.press('n');
    await hand.fill('What should be remembered', 'by Bram');
    await hand.press('Enter');
    await isLive(hand);
    const byBram = await arrives(entries, (one) => one.kind === 'note' && one.payload.text === 'by Bram');
    const byIlka = await arrives(entries, (one) => one.kind === 'note' && one.payload.text === 'held by Ilka');
    const { people } = await api.get<JobView>(`/jobs/${id}`);
    expect([byBram, byIlka].map(({ personId }) => people.find((one) => one.id === personId)?.login)).toEqual(['bram', 'ilka']);
  });

  test('lets in by PIN whom it knows, once everybody has logged out', async () => {
    const { hand } = await atBench(HUB, 'wheel-off');
    await wasHere(hand, 'bram');
    await hand.go('/');
    await hand.use('Log out');
    await hand.sees('Or with a PIN, on this tablet');
    expect(await hand.faults()).toEqual([]);
    await hand.use('Bram Estelow');
    await hand.press('4', '1', '7', '1');
    await hand.sees('is not the PIN of this person');
    await hand.press('4', '1', '7', '0');
    await hand.sees('Now, for Bram');
    const stranger = await Hand.at(shop.screen.browser, shop.server.base);
    await stranger.sees('Who is working?');
    await stranger.settles();
    expect(await stranger.text()).not.toContain('Bram');
    await stranger.page.close();
  });

  test('asks for a code of the telephone beside the password, where its person wants that', async () => {
    const hand = await Hand.at(shop.screen.browser, shop.server.base);
    const enter = async (): Promise<void> => {
      await hand.sees('Who is working?');
      await hand.fill('Log-in name', 'perla');
      await hand.fill('Password', 'bench-417');
      await hand.press('Enter');
    };
    await enter();
    await hand.page.waitForSelector('.topbar');
    await hand.press('i');
    await hand.use('My second factor');
    await hand.sees('Or type it there');
    expect(await hand.faults()).toEqual([]);
    const secret = /type it there: (?<secret>[A-Z2-7]{32})/u.exec(await hand.text())!.groups!['secret']!;
    await hand.fill('The six digits it shows', '12345');
    await hand.fill('Your password', 'bench-417');
    await hand.press('Enter');
    await hand.sees('must be six digits');
    await hand.fill('The six digits it shows', codeOf(secret));
    await hand.fill('Your password', 'bench-417');
    await hand.press('Enter');
    await hand.page.waitForFunction(() => document.querySelector('.modal.show') === null);
    await hand.use('Log out');
    await enter();
    await hand.sees('Code from your telephone');
    expect(await hand.faults()).toEqual([]);
    await hand.fill('Code from your telephone', '000000');
    await hand.press('Enter');
    await hand.sees('is not the one that the telephone shows now');
    await hand.fill('Code from your telephone', codeOf(secret, 1));
    await hand.press('Enter');
    await hand.sees('for Perla');
    // The password takes it off again.
    await hand.press('i');
    await hand.use('My second factor');
    await hand.fill('Your password', 'bench-417');
    await hand.use('Take it off');
    await hand.page.waitForFunction(() => document.querySelector('.modal.show') === null);
    await hand.page.close();
  });

  test('puts a job on hold by one key, sees what else can be done, and takes it up where it was', async () => {
    const { hand, id, entries } = await atBench(HUB, 'wheel-off');
    const other = await api.jobNumbered(403);
    await (await Client.as(shop.server.base, 'bram')).post(other.id, entry('note', { text: 'at it' }));
    await hand.press('h');
    await hand.page.waitForSelector('.modal');
    await hand.press('1');
    await hand.type('seal is on its way');
    await hand.press('Enter');
    await hand.heads('Now, for Ilka');
    await hand.sees('seal is on its way (parts)');
    await hand.sees('Bram Estelow is at it');
    await hand.go(`/jobs/${id}`);
    await hand.sees('Take it up again');
    await hand.press('h');
    await hand.page.waitForFunction(() => !document.body.innerText.includes('Take it up again'));
    await hand.sees('Wheel off');
    await arrives(entries, ({ kind }) => kind === 'hold-off');
    expect((await api.get<JobView>(`/jobs/${id}`)).hold).toBeNull();
  });
});

describe('what is seen and said', () => {
  /** Puts a file into the field that a camera fills. */
  const photograph = async (hand: Hand, name: string, content: Buffer): Promise<void> => {
    const path = join(folder, name);
    writeFileSync(path, content);
    const field = (await hand.page.waitForSelector('input[type="file"]', { hidden: true })) as ElementHandle<HTMLInputElement>;
    await field.uploadFile(path);
  };

  /** A photo as a camera writes it: with the place where it was taken in its EXIF (CIPA DC-008: GPS tags, IFD 0x8825). */
  const withPlace = async (hand: Hand): Promise<Buffer> => {
    const base64 = await hand.page.evaluate(() => {
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [2400, 1800];
      canvas.getContext('2d')?.fillRect(100, 100, 800, 600);
      return canvas.toDataURL('image/jpeg').split(',')[1] ?? '';
    });
    const jpeg = Buffer.from(base64, 'base64');
    const exif = Buffer.concat([
      Buffer.from('Exif\0\0MM\0*\0\0\0\x08\0\x01\x88\x25\0\x04\0\0\0\x01\0\0\0\x1a\0\0\0\0', 'latin1'),
      Buffer.from('\0\x01\0\x01\0\x02\0\0\0\x02N\0\0\0\0\0\0\0', 'latin1'),
    ]);
    const head = Buffer.from([0xff, 0xe1, 0, exif.length + 2]);
    return Buffer.concat([jpeg.subarray(0, 2), head, exif, jpeg.subarray(2)]);
  };

  test('a photo is made smaller, loses its place, is kept once, waits without a link and is shown', async () => {
    const { hand, entries } = await atBench(HUB, 'wheel-off');
    const photo = await withPlace(hand);
    expect(photo.includes('Exif')).toBe(true);
    await hand.cut(true);
    await photograph(hand, 'hub.jpg', photo);
    await hand.page.waitForSelector('.bench-do .picture img[src^="blob:"]');
    await hand.sees('1 file to send');
    await photograph(hand, 'again.jpg', photo);
    await hand.sees('2 held');
    await hand.cut(false);
    await isLive(hand);
    const [first, second] = (await arrives(entries, ({ kind }) => kind === 'photo'), (await entries()).filter(isKind('photo')));
    expect([first?.payload.width, first?.payload.height, first?.payload.words]).toEqual([1600, 1200, 'Wheel off']);
    expect(second?.payload.file).toBe(first?.payload.file);
    const kept = await fetch(`${shop.server.base}/api/v1/files/${first?.payload.file ?? ''}`, { headers: { cookie: api.cookie } });
    expect(kept.headers.get('content-type')).toBe('image/jpeg');
    expect(Buffer.from(await kept.arrayBuffer()).includes('Exif')).toBe(false);
    await hand.page.waitForSelector('.bench-do .picture img[src^="/api/v1/files/"]');
    expect(await hand.faults()).toEqual([]);
  });

  test('where each screw was is shown by dots on a photo, by keyboard too; as many dots as screws, or it is said', async () => {
    const { hand, id, entries } = await atBench(HUB, 'wheel-off');
    await hand.go(`/jobs/${id}/strip`);
    await hand.sees('Came off, but not on the sheet');
    await photograph(hand, 'cover.jpg', await withPlace(hand));
    const photo = await arrives(entries, ({ kind }) => kind === 'photo');
    await hand.use('On the photo');
    await hand.tabTo('Dots on the photo');
    await hand.press('ArrowRight', 'ArrowRight', 'Enter', 'ArrowDown', 'Enter', 'Enter', 'Backspace');
    await hand.page.click('.photo-aim', { offset: { x: 10, y: 10 } });
    await hand.fill('Came off, but not on the sheet', '2 x M8x25 cover');
    await hand.press('Enter');
    await hand.sees('3 dots are on the photo, 2 counted');
    expect(await hand.faults()).toEqual([]);
    await hand.tabTo('Dots on the photo');
    await hand.press('Backspace');
    await hand.tabTo('Add');
    await hand.press('Enter');
    const line = await arrives(entries, (one) => one.kind === 'came-off' && one.payload.name === 'cover');
    expect(line.payload).toMatchObject({
      count: 2,
      size: 'M8 x 25',
      photo: photo.id,
      spots: [
        { x: 540, y: 500 },
        { x: 540, y: 520 },
      ],
    });
    await hand.tab('Drawings');
    await hand.sees('1: 2 × cover, M8 x 25');
  });

  test('a photo of 30 MB is taken in; what is no picture is told so, and nothing is kept of it', async () => {
    const { hand, entries } = await atBench(HUB, 'wheel-off');
    // A bitmap of 3 200 × 3 200: 54 bytes of head, then three bytes a point.
    const side = 3200;
    const bitmap = Buffer.alloc(54 + side * side * 3, 0x55);
    bitmap.write('BM');
    for (const [at, size] of [
      [2, bitmap.length],
      [6, 0],
      [10, 54],
      [14, 40],
      [18, side],
      [22, side],
      [26, 1 + 24 * 65_536],
      [30, 0],
      [34, 0],
      [38, 2835],
      [42, 2835],
      [46, 0],
      [50, 0],
    ] as const)
      bitmap.writeUInt32LE(size, at);
    await photograph(hand, 'huge.bmp', bitmap);
    const photo = await arrives(entries, ({ kind }) => kind === 'photo');
    expect(photo.payload).toMatchObject({ width: 1600, height: 1600 });
    await photograph(hand, 'notes.jpg', Buffer.from('not a picture at all'));
    await hand.sees('"notes.jpg" is no picture that this browser can read');
    expect((await entries()).filter(isKind('photo'))).toHaveLength(1);
  });

  test('what is said while the key is held is kept, named, and can be heard', async () => {
    const { hand, entries } = await atBench(HUB, 'wheel-off');
    await hand.press('v');
    await hand.sees('Hold to talk');
    expect(await hand.faults()).toEqual([]);
    await hand.tabTo('Hold to talk');
    await hand.page.keyboard.down('Space');
    await hand.sees('1 of 20 s');
    await hand.page.keyboard.up('Space');
    await hand.sees('Hold to say it again');
    await hand.fill('What it is about', 'whine when turned by hand');
    await hand.use('Keep');
    const clip = await arrives(entries, ({ kind }) => kind === 'clip');
    expect(clip.payload).toMatchObject({ sort: 'audio', words: 'whine when turned by hand' });
    const { seconds, file } = clip.payload as { seconds: number; file: string };
    expect(seconds).toBeGreaterThan(0.8);
    for (let tries = 0; tries < 50 && !(await api.get<{ whole: boolean }>(`/files/${file}/state`)).whole; tries += 1)
      await new Promise((resolve) => setTimeout(resolve, 100));
    const length = await hand.page.evaluate(async (url) => {
      const decoded = await new AudioContext().decodeAudioData(await (await fetch(url)).arrayBuffer());
      return decoded.duration;
    }, `/api/v1/files/${file}`);
    // How long a busy machine holds the key down is its own affair; what was said must be there, and no more than a clip.
    expect(length).toBeGreaterThan(0.5);
    expect(length).toBeLessThan(LONGEST_CLIP_S + 1);

    // The next hub: one key away at the same step, the newest first, with who and when; into the sheet with it.
    const next = await atBench(HUB, 'wheel-off');
    await next.hand.sees('Kept at this step before: ');
    await next.hand.press('e');
    await next.hand.sees('Ilka Varne, ');
    await next.hand.page.waitForSelector('audio');
    const heard = await next.hand.page.$eval('audio', async (audio) => {
      (audio as HTMLAudioElement).muted = true;
      await (audio as HTMLAudioElement).play();
      return audio.error === null && audio.readyState >= HTMLMediaElement.HAVE_CURRENT_DATA;
    });
    expect(heard).toBe(true);
    expect(await next.hand.faults()).toEqual([]);
    await next.hand.use('Propose it for the sheet');
    await next.hand.sees('It waits at the sheet.');
    const proposed = await arrives(next.entries, ({ kind }) => kind === 'next-time');
    expect(proposed).toMatchObject({
      step: 'wheel-off',
      payload: { text: expect.stringMatching(/^whine when turned by hand \(job \d+, Ilka Varne\)$/u), list: 'steps', line: 'wheel-off' },
    });
    await next.hand.press('Escape');
    await next.hand.page.waitForFunction(() => document.querySelector('audio') === null);
  });
});

describe('instruments', () => {
  const sender = async (hand: Hand, tag: string): Promise<(truth: number, taken?: boolean) => Promise<void>> => {
    const { standIn, send } = await paired(api, hand, tag);
    return (truth, taken = true) => send(standIn.read(truth, 1, [], taken));
  };

  test('an indicator fills the readings at the bench; another instrument, or one past its check, is refused with the reason', async () => {
    const { hand, entries } = await atBench(HUB, 'end-float-found');
    const dial = await sender(hand, 'D2');
    const calliper = await sender(hand, 'K1');
    const overdue = await sender(hand, 'M4');
    await hand.sees('Read the caution');
    await hand.press('Space');
    await hand.sees('Reading 1 of');
    await dial(0.31, false);
    await hand.page.waitForFunction(() =>
      /0\.3\d* mm/u.test(document.querySelector('[aria-label="The instrument reads"]')?.textContent ?? ''),
    );
    await calliper(0.31);
    await hand.sees('K1 Calliper 0–150 sent it; here a dial indicator is asked');
    await overdue(60);
    await hand.sees('Not taken: M4 is past its check');
    await dial(0.31);
    await hand.sees('Reading 2 of');
    expect(await hand.faults()).toEqual([]);
    // A wedge types the line, sign and zeros and unit and all, and Enter.
    await hand.type('+00.310 mm');
    await hand.press('Enter');
    await dial(0.31);
    await hand.page.waitForFunction(() => document.querySelector<HTMLElement>('.bench-keep .btn-primary')?.innerText.startsWith('Keep'));
    await hand.press('PageDown');
    const reading = await arrives(entries, ({ kind }) => kind === 'reading');
    const { tools } = await api.get<JobView>(`/jobs/${reading.jobId}`);
    expect(tools.find(({ id }) => id === reading.toolId)?.tag).toBe('D2');
    const { readings } = reading.payload as { readings: number[] };
    expect(readings).toHaveLength(3);
    for (const size of readings) expect(Math.abs(size - 0.31)).toBeLessThan(0.02);
  });

  test('are paired with a tablet and driven from their page; what the door refuses is said there', async () => {
    const hand = await Hand.at(shop.screen.browser, shop.server.base, '/crib/instruments');
    await hand.logIn('bram');
    await hand.heads('Instruments');
    await hand.use('S1: pair with this tablet');
    await hand.sees('paired with this tablet');
    await hand.use('S1: stand-in');
    await hand.fill('Held to', '120 g');
    await hand.press('Enter');
    await hand.page.waitForFunction(() => /1\d\d g/u.test(document.querySelector('[aria-label="S1 Bench scale 5 kg"]')?.textContent ?? ''));
    await hand.use('wrong quantity');
    await hand.use('Send');
    await hand.sees('is no unit of mass, which S1 reads');
    expect(await hand.faults()).toEqual([]);
  });
});

describe('nothing is lost', () => {
  test('a full tablet says so, keeps what was pressed on the screen, and sends it', async () => {
    const { hand, entries } = await atBench(HUB, 'wheel-off');
    await hand.cut(true);
    // What a device without room answers when something is put (W3C Indexed Database API 3.0, 5.11).
    await hand.page.evaluate(() => {
      const put = IDBObjectStore.prototype.put;
      IDBObjectStore.prototype.put = function full(this: IDBObjectStore, value: unknown, key?: IDBValidKey) {
        if ((value as { kind?: string }).kind === 'note') throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
        return put.call(this, value, key);
      };
    });
    await hand.press('n');
    await hand.fill('What should be remembered', 'no room for this');
    await hand.press('Enter');
    await hand.sees('this tablet is full: 1 on the screen only, keep the page open');
    await hand.cut(false);
    await isLive(hand);
    await arrives(entries, (one) => one.kind === 'note' && one.payload.text === 'no room for this');
  });

  test('a clock that is a day fast is named and set right, and its entries are kept all the same', async () => {
    const { id } = await api.bookedOn(HUB);
    const hand = await Hand.at(shop.screen.browser, shop.server.base, '/crib');
    await hand.page.evaluateOnNewDocument(() => {
      const now = Date.now.bind(Date);
      Date.now = () => now() + 25 * 3600 * 1000;
    });
    await hand.logIn('ilka');
    await hand.go(`/bench/${id}`);
    await hand.page.waitForSelector('.bench h1');
    // Out of the field first, so that the single keys are the page's.
    await hand.press('Escape', 'n');
    await hand.fill('What should be remembered', 'by a fast clock');
    await hand.press('Enter');
    await hand.sees('this tablet’s clock is 25 h fast');
    await arrives(
      async () => (await api.get<JobView>(`/jobs/${id}`)).entries,
      (one) => one.kind === 'note',
    );
    // Told how far it is off, the tablet sets it right from then on, after a new start without a link, too.
    await hand.go(`/bench/${id}`);
    await hand.page.waitForSelector('.bench h1');
    await hand.press('Escape', 'n');
    await hand.fill('What should be remembered', 'by a clock set right');
    await hand.press('Enter');
    const right = await arrives(
      async () => (await api.get<JobView>(`/jobs/${id}`)).entries,
      (one) => one.kind === 'note' && one.payload.text === 'by a clock set right',
    );
    expect(Math.abs(Date.parse(right.keptAt) - Date.parse(right.takenAt))).toBeLessThan(60_000);
  });

  test('an entry whose id another has already stays under its own, shown, and can be let go; so can one that a closed job refuses', async () => {
    const { hand, id, entries } = await atBench(HUB, 'wheel-off');
    const taken = entry('note', { text: 'the first with this id' });
    await api.post(id, taken);
    const finished = await api.jobNumbered(401);
    const put = (held: object): Promise<void> =>
      hand.page.evaluate(
        (one) =>
          new Promise<void>((resolve, reject) => {
            const asked = indexedDB.open('jubb');
            asked.onsuccess = () => {
              const store = asked.result.transaction('held', 'readwrite').objectStore('held').put(one);
              store.onsuccess = () => resolve();
              store.onerror = () => reject(store.error ?? new Error('not put'));
            };
          }),
        held,
      );
    const { person } = await api.get<SessionView>('/session');
    const held = { jobId: id, personId: person.id, takenAt: taken.takenAt, kind: 'note' };
    await put({ ...held, id: taken.id, payload: { text: 'another with the same' } });
    await put({ ...held, id: entry('note', {}).id, jobId: finished.id, payload: { text: 'too late' } });
    await hand.page.reload();
    await hand.sees('An entry with this id was kept before with other content');
    await hand.go(`/jobs/${id}`);
    await hand.sees('Refused by the server');
    // Sent once more it is the same, never another one: what is kept already would be there twice.
    const refusedAgain = hand.page.waitForResponse((response) => response.url().endsWith('/entries') && response.status() === 409);
    await hand.use('Try again');
    await refusedAgain;
    await hand.sees('Refused by the server');
    expect((await entries()).filter(({ kind }) => kind === 'note').map(({ payload }) => payload)).toEqual([taken.payload]);
    await hand.use('Take it out');
    await hand.page.waitForFunction(() => !document.body.innerText.includes('Refused by the server'));
    await hand.go(`/jobs/${finished.id}`);
    await hand.sees('The job is handed over: nothing can be added to it');
    await hand.use('Take it out');
    await hand.page.waitForFunction(() => !document.body.innerText.includes('Refused by the server'));
  });
});
