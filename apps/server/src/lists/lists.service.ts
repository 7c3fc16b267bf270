import type { PersonView } from '@jubb/book';
import { LONGEST_CELL, type BringBody, type BroughtRow, type BroughtView, type Cells, type FieldProblem, type ListName } from '@jubb/wire';
import { Inject, Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { ProblemError, badInput } from '../common/problem.js';
import { BenchesService } from '../benches/benches.service.js';
import { CustomersService } from '../customers/customers.service.js';
import { CribService } from '../crib/crib.service.js';
import { inTransaction } from '../database/data-source.js';
import { SuppliersService } from '../orders/suppliers.service.js';
import { PeopleService } from '../people/people.service.js';
import { StoresService } from '../stores/stores.service.js';

/** Puts back what a preview has done. */
class PutBack extends Error {}

/** The columns that a row is known by: the same number of two suppliers is two prices. */
const KEYS: Readonly<Record<ListName, readonly string[]>> = {
  people: ['login'],
  benches: ['name'],
  customers: ['name', 'machine', 'serial'],
  tools: ['tag'],
  stores: ['number'],
  prices: ['supplier', 'number'],
};

type BringOne = (manager: EntityManager, cells: Cells, by: PersonView) => Promise<'made' | 'changed' | 'same'>;

/** Rows of a table become lines of a list: each by itself as its form would, so that a preview says exactly what will be. */
@Injectable()
export class ListsService {
  readonly #bring: Readonly<Record<ListName, BringOne>>;

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(BenchesService) private readonly benches: BenchesService,
    @Inject(CustomersService) private readonly customers: CustomersService,
    @Inject(CribService) private readonly crib: CribService,
    @Inject(StoresService) private readonly stores: StoresService,
    @Inject(SuppliersService) private readonly suppliers: SuppliersService,
  ) {
    this.#bring = {
      people: (manager, cells, by) => this.people.bring(manager, cells, by),
      benches: (manager, cells, by) => this.benches.bring(manager, cells, by),
      customers: (manager, cells, by) => this.customers.bring(manager, cells, by),
      tools: (manager, cells, by) => this.crib.bring(manager, cells, by),
      stores: (manager, cells, by) => this.stores.bring(manager, cells, by),
      prices: (manager, cells) => this.suppliers.bring(manager, cells),
    };
  }

  /** What became of each row; those that are refused are left out, and say why. A preview does the same, and puts it back. */
  async bring({ list, rows, preview }: BringBody, by: PersonView): Promise<BroughtView> {
    checkCells(rows);
    let brought: readonly BroughtRow[] = [];
    try {
      await inTransaction(this.dataSource, async (manager) => {
        brought = await this.#each(manager, list, rows, by);
        if (preview) throw new PutBack();
      });
    } catch (error) {
      if (!(error instanceof PutBack)) throw error;
    }
    if (!preview) this.stores.tell();
    return { rows: brought };
  }

  async #each(manager: EntityManager, list: ListName, rows: readonly Cells[], by: PersonView): Promise<readonly BroughtRow[]> {
    const brought: BroughtRow[] = [];
    const seen = new Set<string>();
    for (const cells of rows) {
      const keys = KEYS[list];
      const subject = keys
        .map((key) => cells[key]?.trim() ?? '')
        .join(' ')
        .trim();
      if (seen.has(subject.toLowerCase())) {
        brought.push({
          act: 'refused',
          subject,
          wrongs: [{ field: keys.at(-1)!, given: subject, allowed: 'stands in this table twice' }],
        });
        continue;
      }
      seen.add(subject.toLowerCase());
      try {
        // Within its own savepoint: what one row had done is put back, and the others stay.
        const act = await manager.transaction((own) => this.#bring[list](own, cells, by));
        brought.push({ act, subject, wrongs: [] });
      } catch (error) {
        brought.push({ act: 'refused', subject, wrongs: wrongsOf(error) });
      }
    }
    return brought;
  }
}

/** Of a refusal; whatever else went wrong is nobody's row. */
function wrongsOf(error: unknown): readonly FieldProblem[] {
  if (!(error instanceof ProblemError)) throw error;
  const { errors, title } = error.problem;
  return errors ?? [{ field: '', allowed: title }];
}

function checkCells(rows: readonly Readonly<Record<string, unknown>>[]): void {
  for (const [at, row] of rows.entries())
    for (const [name, cell] of Object.entries(row)) {
      const field = `rows[${at}].${name}`.slice(0, LONGEST_CELL);
      if (typeof cell !== 'string') throw badInput([{ field, allowed: 'must be text, as it was typed' }]);
      if (cell.length > LONGEST_CELL) throw badInput([{ field, allowed: `is longer than ${LONGEST_CELL} letters` }]);
    }
}
