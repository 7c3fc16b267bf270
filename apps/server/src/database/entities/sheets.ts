import type { CompletePart, SheetFile } from '@jubb/sheet';
import { Column, Entity, JoinColumn, ManyToOne, PrimaryColumn, PrimaryGeneratedColumn, type Relation } from 'typeorm';
import { Person } from './people.js';

/** Made by the database out of `file`, for lists and searching. */
const FROM_FILE = { type: 'text', nullable: true, select: false, insert: false, update: false } as const;

@Entity('sheet_revision')
export class SheetRevision {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'text' }) key: string;
  @Column({ type: 'int' }) revision: number;
  @Column({ type: 'text' }) status: 'draft' | 'approved' | 'superseded' | 'withdrawn';
  @Column({ type: 'jsonb' }) file: SheetFile;
  @Column({ type: 'text' }) hash: string;
  @Column({ type: 'uuid', name: 'approved_by', nullable: true }) approvedBy: string | null;
  @Column({ type: 'timestamptz', name: 'approved_at', nullable: true }) approvedAt: Date | null;
  /** The file it was brought in as, for its comments. */
  @Column({ type: 'text', nullable: true }) yaml: string | null;
  @Column({ type: 'jsonb' }) complete: readonly CompletePart[];
  @Column({ type: 'int' }) version: number;
  @Column({ type: 'uuid', name: 'edited_by', nullable: true }) editedBy: string | null;
  @Column({ type: 'timestamptz', name: 'edited_at' }) editedAt: Date;
  @Column(FROM_FILE) title: string;
  @Column(FROM_FILE) family: string;
  @Column(FROM_FILE) make: string;
  @Column(FROM_FILE) model: string;
  @Column(FROM_FILE) machine: string;
  @Column(FROM_FILE) words: string;
  @Column({ ...FROM_FILE, type: 'tsvector' }) lexemes: string;
  @ManyToOne(() => Person) @JoinColumn({ name: 'edited_by' }) editor: Relation<Person> | null;
}

/** A PDF of the shop's own. */
@Entity('paper')
export class Paper {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'bytea' }) content: Buffer;
  /** Of the content, by the database. */
  @Column({ type: 'bytea', nullable: true, select: false, insert: false, update: false }) sha256: Buffer;
  @Column({ type: 'uuid', name: 'kept_by' }) keptBy: string;
  @Column({ type: 'timestamptz', name: 'kept_at', insert: false }) keptAt: Date;
}

/** What became of a proposal that an entry made. */
@Entity('proposal_settled')
export class ProposalSettled {
  @PrimaryColumn({ type: 'uuid', name: 'entry_id' }) entryId: string;
  @Column({ type: 'text' }) how: 'taken' | 'left';
  @Column({ type: 'uuid', name: 'person_id' }) personId: string;
  @Column({ type: 'timestamptz', name: 'settled_at', insert: false }) settledAt: Date;
}
