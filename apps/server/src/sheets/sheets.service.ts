import { createHash } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { readSheetFile, type SheetFile, type SheetLine, type SheetView } from '@jubb/contract';
import canonicalize from 'canonicalize';
import { DataSource } from 'typeorm';
import { fieldProblems } from '../common/validation.js';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { SheetRevision } from '../database/entities.js';
import { StreamService } from '../stream/stream.service.js';

/** What never changes under a job: the file of one revision, with how it stood when it was read. */
export interface PinnedSheet {
  readonly revisionId: string;
  readonly revision: number;
  readonly file: SheetFile;
}

const MOST_PINNED = 200;

@Injectable()
export class SheetsService {
  /** Files of revisions, which never change once they are approved. */
  readonly #pinned = new Map<string, Promise<PinnedSheet>>();

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(StreamService) private readonly stream: StreamService,
  ) {}

  async list(): Promise<readonly SheetLine[]> {
    return this.dataSource.query(
      `SELECT key, id AS "revisionId", revision, status, file->>'title' AS title, file->>'family' AS family,
              file->>'make' AS make, file->>'model' AS model, file->>'machine' AS machine
       FROM sheet_revision WHERE status IN ('approved', 'draft') ORDER BY file->>'title', revision`,
    );
  }

  async one(id: string): Promise<SheetView> {
    const [row] = await this.dataSource.query<SheetView[]>(
      `SELECT s.key, s.id AS "revisionId", s.revision, s.status, s.file->>'title' AS title, s.file->>'family' AS family,
              s.file->>'make' AS make, s.file->>'model' AS model, s.file->>'machine' AS machine, s.file, s.hash,
              p.name AS "approvedBy", s.approved_at AS "approvedAt"
       FROM sheet_revision s LEFT JOIN person p ON p.id = s.approved_by WHERE s.id = $1`,
      [id],
    );
    if (!row) throw notFound('sheet');
    return row;
  }

  /** Reads a sheet file and keeps it as the draft of its key; a draft that was there is replaced. */
  async importFile(text: string): Promise<{ revisionId: string; revision: number; key: string }> {
    const read = readSheetFile(text);
    if (!read.ok)
      throw badInput(fieldProblems(read.issues).map((problem) => ({ ...problem, field: problem.field === '' ? 'text' : problem.field })));
    const { sheet } = read;
    const file = JSON.parse(text) as SheetFile;
    const kept = await this.dataSource.transaction(async (manager) => {
      await manager.query('SELECT pg_advisory_xact_lock(hashtext($1))', [sheet.key]);
      await manager.delete(SheetRevision, { key: sheet.key, status: 'draft' });
      const newest = await manager.findOne(SheetRevision, {
        where: { key: sheet.key },
        order: { revision: 'DESC' },
        select: { revision: true },
      });
      const revision = (newest?.revision ?? 0) + 1;
      const saved = await manager.save(
        manager.create(SheetRevision, {
          key: sheet.key,
          revision,
          status: 'draft',
          file,
          hash: sheetHash(file),
          approvedBy: null,
          approvedAt: null,
        }),
      );
      return { revisionId: saved.id, revision, key: sheet.key };
    });
    this.stream.tell({ type: 'sheet' });
    return kept;
  }

  /** A draft becomes the shop's sheet; the one before it is superseded, and jobs keep theirs. */
  async approve(id: string, personId: string): Promise<void> {
    await this.dataSource.transaction(async (manager) => {
      const draft = await manager.findOne(SheetRevision, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if (!draft) throw notFound('sheet');
      if (draft.status !== 'draft')
        throw new ProblemError(409, `Revision ${draft.revision} is ${draft.status}; only a draft can be approved`);
      await manager.update(SheetRevision, { key: draft.key, status: 'approved' }, { status: 'superseded' });
      await manager.update(SheetRevision, { id }, { status: 'approved', approvedBy: personId, approvedAt: new Date() });
    });
    this.stream.tell({ type: 'sheet' });
  }

  pinned(revisionId: string): Promise<PinnedSheet> {
    const known = this.#pinned.get(revisionId);
    if (known) return known;
    const loading = this.one(revisionId).then(({ revision, file }) => ({ revisionId, revision, file }));
    // A failed load is not remembered; the oldest goes when there are too many.
    loading.catch(() => this.#pinned.delete(revisionId));
    this.#pinned.set(revisionId, loading);
    if (this.#pinned.size > MOST_PINNED) this.#pinned.delete(this.#pinned.keys().next().value ?? '');
    return loading;
  }
}

function sheetHash(file: SheetFile): string {
  return createHash('sha256')
    .update(canonicalize(file) ?? '')
    .digest('hex');
}
