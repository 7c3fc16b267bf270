import type { Hold, QuoteAnswer, QuoteBody, QuoteView } from '@jubb/book';
import type { JobScope, Stage } from '@jubb/sheet';
import { Column, Entity, JoinColumn, ManyToOne, PrimaryColumn, PrimaryGeneratedColumn, VersionColumn, type Relation } from 'typeorm';
import { Unit } from './customers.js';
import { Person } from './people.js';
import { SheetRevision } from './sheets.js';

/** Follows the entries: written by the functions that keep them, never here. */
const BY_ENTRIES = { insert: false, update: false } as const;

@Entity('job')
export class Job {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'int', ...BY_ENTRIES }) number: number;
  @Column({ type: 'uuid', name: 'unit_id' }) unitId: string;
  @Column({ type: 'uuid', name: 'sheet_revision_id' }) sheetRevisionId: string;
  @Column({ type: 'text', ...BY_ENTRIES }) stage: Stage;
  @Column({ type: 'text' }) complaint: string;
  @Column({ type: 'timestamptz' }) promise: Date;
  @Column({ type: 'int', name: 'estimate_minor' }) estimateMinor: number;
  @Column({ type: 'jsonb', nullable: true, ...BY_ENTRIES }) hold: Hold | null;
  @Column({ type: 'jsonb', nullable: true }) scope: JobScope | null;
  @VersionColumn({ type: 'int' }) version: number;
  @Column({ type: 'timestamptz', name: 'booked_at', ...BY_ENTRIES }) bookedAt: Date;
  @Column({ type: 'timestamptz', name: 'closed_at', nullable: true, ...BY_ENTRIES }) closedAt: Date | null;
  @Column({ type: 'int', name: 'last_seq', ...BY_ENTRIES }) lastSeq: number;
  @Column({ type: 'text', name: 'last_hash', ...BY_ENTRIES }) lastHash: string;
  @ManyToOne(() => Unit) @JoinColumn({ name: 'unit_id' }) unit: Relation<Unit>;
  @ManyToOne(() => SheetRevision) @JoinColumn({ name: 'sheet_revision_id' }) sheetRevision: Relation<SheetRevision>;
}

/** Kept by `keep_entries`, which chains them; the database refuses to change or remove one. */
@Entity('entry')
export class Entry {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'job_id', ...BY_ENTRIES }) jobId: string;
  @Column({ type: 'int', ...BY_ENTRIES }) seq: number;
  @Column({ type: 'text', ...BY_ENTRIES }) kind: string;
  @Column({ type: 'int', ...BY_ENTRIES }) version: number;
  @Column({ type: 'jsonb', ...BY_ENTRIES }) payload: unknown;
  @Column({ type: 'jsonb', nullable: true, ...BY_ENTRIES }) working: unknown;
  @Column({ type: 'text', nullable: true, ...BY_ENTRIES }) step: string | null;
  @Column({ type: 'uuid', name: 'tool_id', nullable: true, ...BY_ENTRIES }) toolId: string | null;
  @Column({ type: 'uuid', nullable: true, ...BY_ENTRIES }) strikes: string | null;
  @Column({ type: 'uuid', name: 'person_id', ...BY_ENTRIES }) personId: string;
  @Column({ type: 'timestamptz', name: 'taken_at', ...BY_ENTRIES }) takenAt: Date;
  @Column({ type: 'timestamptz', name: 'kept_at', ...BY_ENTRIES }) keptAt: Date;
  @Column({ type: 'text', name: 'content_hash', ...BY_ENTRIES }) contentHash: string;
  @Column({ type: 'text', name: 'prev_hash', ...BY_ENTRIES }) prevHash: string;
  @Column({ type: 'text', ...BY_ENTRIES }) hash: string;
}

@Entity('quote')
export class Quote {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'int', generated: 'identity', insert: false, update: false }) number: number;
  @Column({ type: 'uuid', name: 'job_id' }) jobId: string;
  @Column({ type: 'text', default: 'sent' }) state: QuoteView['state'];
  @Column({ type: 'jsonb' }) body: Omit<QuoteBody, 'id'>;
  @Column({ type: 'text', name: 'token_hash' }) tokenHash: string;
  @Column({ type: 'jsonb', nullable: true }) answer: QuoteAnswer | null;
  @Column({ type: 'uuid', name: 'sent_by' }) sentById: string;
  @Column({ type: 'timestamptz', name: 'sent_at', insert: false }) sentAt: Date;
  @ManyToOne(() => Job) @JoinColumn({ name: 'job_id' }) job: Relation<Job>;
  @ManyToOne(() => Person) @JoinColumn({ name: 'sent_by' }) sentBy: Relation<Person>;
}

/** A letter to a customer; the stand-in for the post shows it. */
@Entity('message')
export class Message {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'text', name: 'to_whom' }) to: string;
  @Column({ type: 'text' }) subject: string;
  @Column({ type: 'text', name: 'body' }) text: string;
  @Column({ type: 'timestamptz', name: 'sent_at', insert: false }) sentAt: Date;
}

@Entity('file')
export class KeptFile {
  @PrimaryColumn({ type: 'text' }) sha256: string;
  @Column({ type: 'text' }) type: string;
  @Column({ type: 'bytea' }) content: Buffer;
  @Column({ type: 'uuid', name: 'kept_by' }) keptBy: string;
  @Column({ type: 'timestamptz', name: 'kept_at', insert: false }) keptAt: Date;
  /** Bytes that the tablet sent; none for one that was kept as it was sent. */
  @Column({ type: 'int', name: 'sent_size', nullable: true }) sentSize: number | null;
}

/** What came so far of a file that is being sent. */
@Entity('file_part')
export class FilePart {
  @PrimaryColumn({ type: 'text' }) sha256: string;
  @PrimaryColumn({ type: 'int' }) at: number;
  @Column({ type: 'bytea' }) content: Buffer;
  @Column({ type: 'timestamptz', name: 'kept_at', insert: false }) keptAt: Date;
}
