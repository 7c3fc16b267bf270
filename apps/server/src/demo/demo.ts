import type { PersonView } from '@jubb/book';
import { daysOn, type Role, type SheetFile } from '@jubb/sheet';
import { createHash } from 'node:crypto';
import { readFile, readdir } from 'node:fs/promises';
import { join, parse } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, In } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { shopDay } from '../common/shop-day.js';
import { DemoSight, Instrument, KeptFile, LicenceRow, Person, SheetRevision, Shop, ToolRow } from '../database/entities/index.js';
import { fileType } from '../files/file-type.js';
import { PeopleService } from '../people/people.service.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { StoresService } from '../stores/stores.service.js';
import { DEMO_INSTRUMENTS, demoTools, moreTools } from './demo-crib.js';
import { ZONE } from './demo-known.js';
import { LIBRARY, type LibrarySheet } from './demo-library.js';
import type { Pictures } from './demo-plan.js';
import { loadDemoStores } from './demo-stores.js';
import { DEMO_HOURS } from './shop-hours.js';
import { DemoThree } from './demo-three.js';
import { DemoYears, type Tell } from './demo-years.js';

/** One password for all demo people; it is printed by `./jubb start`. */
export const DEMO_PASSWORD = 'bench-417';

/** One PIN for all of them, at a tablet that knows them. */
export const DEMO_PIN = '4170';

export const DEMO_PEOPLE: readonly (readonly [name: string, login: string, role: Role])[] = [
  ['Ilka Varne', 'ilka', 'mechanic'],
  ['Bram Estelow', 'bram', 'mechanic'],
  ['Oswin Tarrell', 'oswin', 'foreman'],
  ['Perla Dunmoor', 'perla', 'counter'],
  ['Joss Hallick', 'joss', 'apprentice'],
];

/** Who else is in the shop with two years behind it; the last one left, and has no way in any more. */
export const MORE_PEOPLE: typeof DEMO_PEOPLE = [
  ['Tova Brackmere', 'tova', 'mechanic'],
  ['Miro Ashvale', 'miro', 'counter'],
  ['Garrit Solvane', 'garrit', 'mechanic'],
];
const WHO_LEFT = 'garrit';

/** Certificates of licensed practice, and for how many days from now they are good. */
const DEMO_LICENCES = [
  ['oswin', 'refrigerant', 'RC 0417', 'guild of the valley', 410],
  ['bram', 'refrigerant', 'RC 0533', 'guild of the valley', 26],
  ['bram', 'pressure', 'PV 88', 'inspection of vessels', 700],
  ['oswin', 'brake', 'BK 2031', 'guild of the valley', null],
] as const;

/** Stands among the sights while the demo is made. */
const UNFINISHED = 0;

/** Pixels of the demo's photos. */
const DRAWN = { width: 640, height: 480 };

/** Three jobs of one kind for tests and measurements, or a shop that has been open for two years. */
export const DEMO_SIZES = ['small', 'full'] as const;
export type DemoSize = (typeof DEMO_SIZES)[number];

/** The demo that is asked for; a shop with two years behind it where nothing is said. Throws at a word that is none. */
export function demoSize(asked = 'full'): DemoSize {
  const size = DEMO_SIZES.find((one) => one === asked);
  if (size) return size;
  throw new Error(`--demo is "${asked}"; it is one of ${DEMO_SIZES.join(', ')}`);
}

/** Whether somebody is here, and no demo is being made or was left half-made. */
export async function isSettled(dataSource: DataSource): Promise<boolean> {
  if (await dataSource.getRepository(DemoSight).existsBy({ place: UNFINISHED })) return false;
  return dataSource.getRepository(Person).exists();
}

/** Invented, all of it: a shop in a ski valley with a small airfield. */
@Injectable()
export class Demo {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(StoresService) private readonly stores: StoresService,
    @Inject(DemoThree) private readonly three: DemoThree,
    @Inject(DemoYears) private readonly years: DemoYears,
  ) {}

  async loadIfEmpty(pictureFolder: string, size: DemoSize, tell: Tell): Promise<boolean> {
    const runner = this.dataSource.createQueryRunner();
    // One process loads it, however many start together.
    await runner.query('SELECT pg_advisory_lock(20118)');
    try {
      const sights = this.dataSource.getRepository(DemoSight);
      if (await sights.existsBy({ place: UNFINISHED }))
        throw new Error('The demo was begun and is not whole: ./jubb demo --again makes it anew');
      if (await this.dataSource.getRepository(Person).exists()) return false;
      await sights.insert({ place: UNFINISHED, words: 'begun', path: '/' });
      await this.#load(pictureFolder, size, tell);
      await sights.delete({ place: UNFINISHED });
      return true;
    } finally {
      await runner.query('SELECT pg_advisory_unlock(20118)');
      await runner.release();
    }
  }

  async #load(pictureFolder: string, size: DemoSize, tell: Tell): Promise<void> {
    tell(size === 'full' ? 'two years of a shop' : 'three jobs');
    await this.dataSource
      .getRepository(Shop)
      .update(1, { name: 'Skarrow Bench', zone: ZONE, currency: 'EUR', hourlyMinor: 6800, hours: DEMO_HOURS });
    const staff = await this.#people(size === 'full' ? [...DEMO_PEOPLE, ...MORE_PEOPLE] : DEMO_PEOPLE);
    const person = (login: string): PersonView => staff.get(login)!;
    await this.#sheets(size, person('ilka').id, person('oswin').id);
    await this.dataSource.getRepository(ToolRow).insert(size === 'full' ? [...demoTools(), ...moreTools()] : demoTools());
    const { manager } = this.dataSource;
    const senders = await manager.findBy(ToolRow, { tag: In(DEMO_INSTRUMENTS) });
    await manager.insert(
      Instrument,
      senders.map(({ id, name }) => ({ toolId: id, clicks: name.startsWith('Click') })),
    );
    const counts = await loadDemoStores(this.dataSource, this.stores, await this.#files());
    if (size === 'full')
      await this.years.load({ staff, counts, now: Date.now(), pictures: await this.#pictures(pictureFolder, person('ilka').id), tell });
    else {
      for (const { item, move } of counts) await this.stores.moveOn(manager, item, move, person('perla').id);
      await this.three.load(staff);
    }
  }

  /** As they would be once each was brought in and approved, one revision after the other. */
  async #sheets(size: DemoSize, editedBy: string, approvedBy: string): Promise<void> {
    const library = JSON.parse(await readFile(LIBRARY, 'utf8')) as readonly LibrarySheet[];
    const now = new Date();
    const rows = library
      .filter(({ status }) => size === 'full' || status === 'approved')
      .map((sheet) => ({
        ...sheet,
        revision: size === 'full' ? sheet.revision : 1,
        version: 1,
        editedBy,
        editedAt: now,
        approvedBy,
        approvedAt: now,
      }));
    await this.dataSource.getRepository(SheetRevision).insert(rows);
  }

  async #people(all: typeof DEMO_PEOPLE): Promise<ReadonlyMap<string, PersonView>> {
    const staff = await Promise.all(
      all.map(async ([name, login, role]) => {
        const hasLeft = login === WHO_LEFT;
        const added = await this.people.add(name, login, role, hasLeft ? uuid() : DEMO_PASSWORD);
        if (!hasLeft) await this.people.setPin(added.id, DEMO_PIN);
        return added;
      }),
    );
    const byLogin = new Map(staff.map((one) => [one.login, one]));
    const left = byLogin.get(WHO_LEFT);
    if (left) await this.people.change(left.id, { version: 1, name: left.name, role: left.role, hasLeft: true }, byLogin.get('oswin')!);
    const { today } = await shopDay(this.dataSource);
    const keptBy = byLogin.get('oswin')!.id;
    await this.dataSource.getRepository(LicenceRow).insert(
      DEMO_LICENCES.map(([login, covers, number, givenBy, days]) => {
        const until = days === null ? null : daysOn(ZONE, today, days);
        return { personId: byLogin.get(login)!.id, covers, number, givenBy, until, keptBy };
      }),
    );
    return byLogin;
  }

  /** Keeps the photos and the clip, and gives what entries name them by. */
  async #pictures(folder: string, keptBy: string): Promise<Pictures> {
    const names = (await readdir(folder)).toSorted();
    const files = await Promise.all(
      names.map(async (name) => {
        const content = await readFile(join(folder, name));
        return { name: parse(name).name, content, sha256: createHash('sha256').update(content).digest('hex'), type: fileType(content) };
      }),
    );
    const rows = files.map(({ content, sha256, type }) => ({ sha256, type, content, keptBy, sentSize: content.length }));
    await this.dataSource.manager.insert(KeptFile, rows);
    return Object.fromEntries(files.map(({ name, sha256 }) => [name, { file: sha256, ...DRAWN }]));
  }

  /** The approved sheets, as a whole job would see them. */
  async #files(): Promise<readonly SheetFile[]> {
    const lines = await this.sheets.list();
    const approved = lines.filter(({ status }) => status === 'approved');
    return Promise.all(approved.map(async ({ revisionId }) => (await this.sheets.pinned(revisionId, null)).file));
  }
}
