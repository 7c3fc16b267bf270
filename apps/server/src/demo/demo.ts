import type { PersonView } from '@jubb/book';
import { daysOn } from '@jubb/sheet';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, In } from 'typeorm';
import { v7 as uuid } from 'uuid';
import { shopDay } from '../common/shop-day.js';
import { DemoSight, Instrument, KeptFile, LicenceRow, Person, SheetRevision, Shop, ToolRow } from '../database/entities/index.js';
import { fileType } from '../files/file-type.js';
import { PeopleService } from '../people/people.service.js';
import { StoresService } from '../stores/stores.service.js';
import { DEMO_INSTRUMENTS, demoTools, moreTools } from './demo-crib.js';
import { ZONE } from './demo-known.js';
import { readLibraryFile, type LibrarySheet } from './demo-library.js';
import { DEMO_PASSWORD, DEMO_PEOPLE, DEMO_PIN, MORE_PEOPLE, WHO_LEFT } from './demo-people.js';
import { namedPictures, readPictures } from './demo-pictures.js';
import type { Pictures } from './demo-plan.js';
import { UNFINISHED, type DemoSize } from './demo-size.js';
import { loadDemoStores } from './demo-stores.js';
import { DEMO_HOURS } from './demo-promise.js';
import { DemoThree } from './demo-three.js';
import { DemoYears, type Tell } from './demo-years.js';

/** Certificates of licensed practice, and for how many days from now they are good. */
const DEMO_LICENCES = [
  ['oswin', 'refrigerant', 'RC 0417', 'guild of the valley', 410],
  ['bram', 'refrigerant', 'RC 0533', 'guild of the valley', 26],
  ['bram', 'pressure', 'PV 88', 'inspection of vessels', 700],
  ['oswin', 'brake', 'BK 2031', 'guild of the valley', null],
] as const;

/** Invented, all of it: a shop in a ski valley with a small airfield. */
@Injectable()
export class Demo {
  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(PeopleService) private readonly people: PeopleService,
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
    const library = await readLibraryFile();
    await this.#sheets(library, size, person('ilka').id, person('oswin').id);
    await this.dataSource.getRepository(ToolRow).insert(size === 'full' ? [...demoTools(), ...moreTools()] : demoTools());
    const { manager } = this.dataSource;
    const senders = await manager.findBy(ToolRow, { tag: In(DEMO_INSTRUMENTS) });
    await manager.insert(
      Instrument,
      senders.map(({ id, name }) => ({ toolId: id, clicks: name.startsWith('Click') })),
    );
    const counts = await loadDemoStores(
      manager,
      library.flatMap(({ status, file }) => (status === 'approved' ? [file] : [])),
    );
    if (size === 'full')
      await this.years.load({
        library,
        staff,
        counts,
        now: Date.now(),
        pictures: await this.#pictures(pictureFolder, person('ilka').id),
        tell,
      });
    else {
      for (const { item, move } of counts) await this.stores.moveOn(manager, item, move, person('perla').id);
      await this.three.load(staff);
    }
  }

  /** As they would be once each was brought in and approved, one revision after the other. */
  async #sheets(library: readonly LibrarySheet[], size: DemoSize, editedBy: string, approvedBy: string): Promise<void> {
    const now = new Date();
    const rows = library
      .filter(({ status }) => size === 'full' || status === 'approved')
      .map((sheet) => ({
        ...sheet,
        revision: size === 'full' ? sheet.revision : 1,
        version: 1,
        editedBy,
        editedAt: now,
        ...(sheet.status === 'draft' ? {} : { approvedBy, approvedAt: now }),
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
    const files = await readPictures(folder);
    const rows = files.map(({ content, sha256 }) => ({ sha256, type: fileType(content), content, keptBy, sentSize: content.length }));
    await this.dataSource.manager.insert(KeptFile, rows);
    return namedPictures(files);
  }
}
