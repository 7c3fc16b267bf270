import type { PersonView } from '@jubb/book';
import { refOf, scopeSheet, type Difference, type JobScope, type ScopedSheet, type SheetFile } from '@jubb/sheet';
import { emptySheet, fromTemplate, writeCsv, writeYaml, type CsvList } from '@jubb/sheet/editing';
import type { IdentitySheet, ImportSheetBody, ImportView, NewSheetBody, RevisionLine, SheetLine, SheetView } from '@jubb/wire';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { fieldProblems } from '../common/validation.js';
import { remember } from '../common/remember.js';
import { ProblemError, badInput, changedSince, notFound } from '../common/problem.js';
import { ask, askJson, inTransaction, lockName } from '../database/data-source.js';
import { Job, Person, SheetRevision, Shop } from '../database/entities/index.js';
import { WRITERS } from '@jubb/book';
import { StreamService } from '../stream/stream.service.js';
import { FIND, IDENTITIES, LIST, ONE, REVISIONS } from './sheets.sql.js';
import { EXAMPLES, type Examples } from '../tokens.js';
import { SheetWork } from './sheet-work.js';
import type { SheetTasks } from './sheet-worker.js';

/** The sheet of a job: the file of one revision, narrowed to what the job picked. */
export interface PinnedSheet extends ScopedSheet {
  readonly revisionId: string;
  readonly revision: number;
  readonly status: string;
}

/** The list of sheets as it goes out, plain and packed. */
export interface Listed {
  readonly version: string;
  readonly plain: Buffer;
  readonly packed: Buffer;
}

const pack = promisify(gzip);
const MOST_PINNED = 200;
@Injectable()
export class SheetsService {
  /** Files of approved revisions, which never change. */
  readonly #pinned = new Map<string, Promise<SheetView>>();
  readonly #scoped = new Map<string, ScopedSheet>();
  #listed: Listed | undefined;

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
    @Inject(SheetWork) private readonly work: SheetWork,
    @Inject(EXAMPLES) private readonly examples: Examples,
  ) {}

  list(): Promise<readonly SheetLine[]> {
    return ask(this.dataSource.manager, LIST);
  }

  /** The same as JSON, made once for each change of a sheet and kept, packed too: every page asks for it. */
  async listed(): Promise<Listed> {
    // Read before the list: what is kept under a version is never older than it.
    const { sheetsVersion: version } = await this.dataSource.manager.findOneOrFail(Shop, {
      select: { sheetsVersion: true },
      where: { id: 1 },
    });
    if (this.#listed?.version !== version) {
      const plain = Buffer.from(await askJson(this.dataSource.manager, LIST));
      this.#listed = { version, plain, packed: await pack(plain) };
    }
    return this.#listed;
  }

  /** Revisions that hold all the words somewhere in their text, steps and cautions included; a word may be begun only. */
  async find(text: string): Promise<readonly string[]> {
    return (await ask<{ id: string }>(this.dataSource.manager, FIND, text)).map(({ id }) => id);
  }

  async one(id: string, manager = this.dataSource.manager): Promise<SheetView> {
    const [row] = await ask<SheetView>(manager, ONE, id);
    if (!row) throw notFound('sheet');
    return row;
  }

  /** The same as JSON text. */
  async oneJson(id: string): Promise<string> {
    const found = await askJson(this.dataSource.manager, ONE, id);
    if (found === '[]') throw notFound('sheet');
    return found.slice(1, -1);
  }

  async revisions(id: string): Promise<readonly RevisionLine[]> {
    const { key } = await this.one(id);
    return ask(this.dataSource.manager, REVISIONS, key);
  }

  async differences(id: string, againstId: string): Promise<readonly Difference[]> {
    const [after, before] = await Promise.all([this.one(id), this.one(againstId)]);
    if (after.key !== before.key)
      throw badInput([{ field: 'against', given: before.title, allowed: `must be a revision of ${after.title}` }]);
    return this.work.run('differences', before.file, after.file);
  }

  async yaml(id: string): Promise<string> {
    const { file, yaml } = await this.#revision(id);
    return writeYaml(file, yaml ?? undefined);
  }

  async csv(id: string, list: CsvList): Promise<string> {
    return writeCsv((await this.one(id)).file, list);
  }

  /** What tells the approved sheets of a family, or of all, apart. */
  identities(family: string): Promise<readonly IdentitySheet[]> {
    return ask(this.dataSource.manager, IDENTITIES, family);
  }

  /**
   * Reads a sheet file and keeps it as the draft of its key; or only says what it would change. A draft that is there is
   * somebody's work: it takes its place only as it was looked at, and by who may edit it.
   */
  async importFile(
    text: string,
    person: PersonView,
    { look = false, over }: Pick<ImportSheetBody, 'look' | 'over'> = {},
  ): Promise<ImportView> {
    const read = await this.work.run('read', text);
    if (!read.ok)
      throw badInput(fieldProblems(read.issues).map((problem) => ({ ...problem, field: problem.field === '' ? 'text' : problem.field })));
    const { plain: file, yaml } = read;
    const mark = await this.work.run('mark', file);
    const view = await inTransaction(this.dataSource, async (manager) => {
      await lockName(manager, file.key);
      const newest = await manager.findOne(SheetRevision, { where: { key: file.key }, order: { revision: 'DESC' } });
      const revision = newest?.status === 'draft' ? newest.revision : (newest?.revision ?? 0) + 1;
      const draftThere = newest?.status === 'draft' ? await whoseDraft(manager, newest) : undefined;
      const found = {
        key: file.key,
        title: file.title,
        revision,
        against: newest && { revision: newest.revision, status: newest.status, ...(draftThere ? { draft: draftThere } : {}) },
        differences: newest ? await this.work.run('differences', newest.file, file) : [],
      };
      if (look) return { ...found, revisionId: null };
      if (draftThere) checkOver(draftThere, person, over);
      const draft = newest?.status === 'draft' ? newest : freshDraft(file.key, revision);
      const revisionId = await saveDraft(manager, draft, { file, mark, yaml: yaml ?? null }, person.id);
      return { ...found, revisionId };
    });
    if (!look) this.stream.tell({ type: 'sheet' });
    return view;
  }

  /** A draft of the sheet to work on: the one that is there, or a copy of this revision. */
  async beginDraft(id: string, personId: string): Promise<{ revisionId: string }> {
    const from = await this.#revision(id);
    return this.#change(async (manager) => {
      await lockName(manager, from.key);
      const newest = await manager.findOneOrFail(SheetRevision, { where: { key: from.key }, order: { revision: 'DESC' } });
      if (newest.status === 'draft') return { revisionId: newest.id };
      const { file, yaml, complete, hash } = from;
      const copy = { file, yaml, mark: { complete, hash } };
      const revisionId = await saveDraft(manager, freshDraft(from.key, newest.revision + 1), copy, personId);
      return { revisionId };
    });
  }

  /** Begins the sheet of a model that is new here, from the work of its family: of a sheet of the shop, else of the example that comes with Jubb. */
  async begin(body: NewSheetBody, personId: string): Promise<{ revisionId: string }> {
    const family = await this.dataSource.manager.findOne(SheetRevision, {
      where: { status: 'approved', family: body.family },
      order: { approvedAt: 'ASC' },
    });
    const template = family?.file ?? (await this.examples()).find((example) => example.family === body.family);
    const base = refOf(`${body.make} ${body.model}`, 60);
    const model = { ...body, make: body.make.trim(), model: body.model.trim(), key: base };
    const file = template ? fromTemplate(template, model) : emptySheet(model, body.family.trim());
    const mark = await this.work.run('mark', file);
    return this.#change(async (manager) => {
      await lockName(manager, base);
      if (await manager.existsBy(SheetRevision, { key: base }))
        throw badInput([{ field: 'model', given: `${body.make} ${body.model}`, allowed: 'has a sheet here already' }]);
      const revisionId = await saveDraft(manager, freshDraft(base, 1), { file, mark, yaml: null }, personId);
      return { revisionId };
    });
  }

  /** Keeps what an editor made of a draft, if nobody else did since `version`. */
  async saveDraft(id: string, version: number, file: object, personId: string): Promise<{ version: number }> {
    checkDraftShape(file, (await this.#revision(id)).key);
    const [mark, issues] = await Promise.all([this.work.run('mark', file as SheetFile), this.work.run('issues', file as SheetFile)]);
    return this.#change(async (manager) => {
      const draft = await lockDraft(manager, id, 'changed');
      if (draft.version !== version) throw changedSince('draft', await this.one(id, manager));
      // One that a job goes by stays whole.
      if (issues.length > 0 && (await isPinned(manager, id))) throw badInput(fieldProblems(issues));
      await saveDraft(manager, draft, { file: file as SheetFile, mark, yaml: draft.yaml }, personId);
      return { version: draft.version };
    });
  }

  async dropDraft(id: string): Promise<void> {
    await this.#change(async (manager) => {
      const draft = await lockDraft(manager, id, 'thrown away');
      if (await isPinned(manager, id)) throw new ProblemError('draft-in-use');
      await manager.delete(SheetRevision, { id: draft.id });
    });
  }

  /** A draft that was thrown away comes back as it was, unless another one was begun since. */
  async draftBack(file: object, personId: string): Promise<{ revisionId: string }> {
    const key = String((file as { key?: unknown }).key);
    checkDraftShape(file, key);
    const mark = await this.work.run('mark', file as SheetFile);
    return this.#change(async (manager) => {
      await lockName(manager, key);
      const newest = await manager.findOne(SheetRevision, { where: { key }, order: { revision: 'DESC' } });
      if (newest?.status === 'draft') throw new ProblemError('draft-newer');
      const content = { file: file as SheetFile, mark, yaml: null };
      const revisionId = await saveDraft(manager, freshDraft(key, (newest?.revision ?? 0) + 1), content, personId);
      return { revisionId };
    });
  }

  /** A draft becomes the shop's sheet; the one before it is superseded, and jobs keep theirs. */
  async approve(id: string, personId: string): Promise<void> {
    await this.#change(async (manager) => {
      const draft = await lockDraft(manager, id, 'approved');
      const stops = await this.work.run('stops', draft.file);
      if (stops.length > 0) throw new ProblemError('not-to-be-approved', { errors: stops });
      await manager.update(SheetRevision, { key: draft.key, status: 'approved' }, { status: 'superseded' });
      await manager.update(SheetRevision, { id }, { status: 'approved', approvedBy: personId, approvedAt: new Date() });
    });
  }

  /** Takes an approved sheet out of use; jobs that go by it keep it. */
  async withdraw(id: string): Promise<void> {
    const { affected } = await this.dataSource.getRepository(SheetRevision).update({ id, status: 'approved' }, { status: 'withdrawn' });
    if (!affected) {
      const { revision, status } = await this.one(id);
      throw new ProblemError('not-approved', { named: { revision, status } });
    }
    this.stream.tell({ type: 'sheet' });
  }

  /** The sheet as a job sees it. */
  async pinned(revisionId: string, scope: JobScope | null): Promise<PinnedSheet> {
    const { revision, status, file } = await this.#approvedOnce(revisionId);
    // A draft under a job is still being written: nothing of it is remembered.
    if (status === 'draft') return { revisionId, revision, status, ...scopeSheet(file, scope) };
    const key = JSON.stringify([revisionId, scope?.variant, scope?.tasks, scope?.sides, scope?.place]);
    const scoped = this.#scoped.get(key) ?? scopeSheet(file, scope);
    remember(this.#scoped, key, scoped, MOST_PINNED);
    return { revisionId, revision, status, ...scoped };
  }

  /** Changes sheets, and tells of it when it is kept. */
  async #change<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    const changed = await inTransaction(this.dataSource, work);
    this.stream.tell({ type: 'sheet' });
    return changed;
  }

  #approvedOnce(revisionId: string): Promise<SheetView> {
    const known = this.#pinned.get(revisionId);
    if (known) return known;
    const loading = this.one(revisionId);
    // A failed load is not remembered, nor a draft.
    loading.then(
      ({ status }) => (status === 'draft' ? this.#pinned.delete(revisionId) : undefined),
      () => this.#pinned.delete(revisionId),
    );
    remember(this.#pinned, revisionId, loading, MOST_PINNED);
    return loading;
  }

  async #revision(id: string): Promise<SheetRevision> {
    const revision = await this.dataSource.getRepository(SheetRevision).findOneBy({ id });
    if (!revision) throw notFound('sheet');
    return revision;
  }
}

async function lockDraft(manager: EntityManager, id: string, act: string): Promise<SheetRevision> {
  const draft = await manager.findOne(SheetRevision, { where: { id }, lock: { mode: 'pessimistic_write' } });
  if (!draft) throw notFound('sheet');
  if (draft.status !== 'draft') {
    const { revision, status } = draft;
    throw new ProblemError('not-a-draft', { named: { revision, status, act } });
  }
  return draft;
}

function isPinned(manager: EntityManager, id: string): Promise<boolean> {
  return manager.existsBy(Job, { sheetRevisionId: id });
}

type DraftThere = NonNullable<NonNullable<ImportView['against']>['draft']>;

async function whoseDraft(manager: EntityManager, { version, editedBy, editedAt }: SheetRevision): Promise<DraftThere> {
  const editor = editedBy === null ? null : await manager.findOneBy(Person, { id: editedBy });
  return { version, editedBy: editor?.name ?? 'nobody known', editedAt: editedAt.toISOString() };
}

function checkOver(draft: DraftThere, { role }: PersonView, over: number | undefined): void {
  if (!WRITERS.includes(role))
    throw new ProblemError('not-yours', {
      detail: `A draft of this sheet is under work by ${draft.editedBy}; it needs ${WRITERS.join(' or ')} to put another in its place`,
    });
  if (over !== draft.version)
    throw new ProblemError('draft-under-work', {
      named: { who: draft.editedBy },
      detail: 'Look at what the file would change in it, and then bring it in',
    });
}

function freshDraft(key: string, revision: number): SheetRevision {
  return Object.assign(new SheetRevision(), { key, revision, status: 'draft' as const, approvedBy: null, approvedAt: null, version: 0 });
}

/** What a draft holds, with what the list shows of it and what it is known by. */
interface Content {
  readonly file: SheetFile;
  readonly mark: ReturnType<SheetTasks['mark']>;
  readonly yaml: string | null;
}

async function saveDraft(manager: EntityManager, draft: SheetRevision, { file, mark, yaml }: Content, personId: string): Promise<string> {
  const saved = await manager.save(
    Object.assign(draft, {
      file,
      yaml,
      ...mark,
      version: draft.version + 1,
      editedBy: personId,
      editedAt: new Date(),
    }),
  );
  return saved.id;
}

/** What the rest of Jubb needs of any draft, however unfinished: its lists are lists of lines with a ref. */
function checkDraftShape(file: object, key: string): void {
  const plain = file as Record<string, unknown>;
  if (plain['key'] !== key) throw badInput([{ field: 'key', given: String(plain['key']), allowed: `must stay "${key}"` }]);
  for (const name of ['title', 'family', 'make', 'model', 'machine'])
    if (typeof plain[name] !== 'string' || plain[name] === '') throw badInput([{ field: name, allowed: 'is missing' }]);
  for (const [name, held] of Object.entries(plain)) {
    if (!Array.isArray(held) || name === 'sides') continue;
    const bad = held.findIndex((line: unknown) => typeof (line as { ref?: unknown } | null)?.ref !== 'string');
    if (bad >= 0) throw badInput([{ field: `${name}[${bad}].ref`, allowed: 'is missing: a short name for the line' }]);
  }
}
