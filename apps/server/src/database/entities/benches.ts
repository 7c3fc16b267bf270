import type { ShopHours } from '@jubb/book';
import type { BenchKind } from '@jubb/sheet';
import {
  Column,
  Entity,
  JoinColumn,
  JoinTable,
  ManyToMany,
  ManyToOne,
  PrimaryColumn,
  PrimaryGeneratedColumn,
  type Relation,
} from 'typeorm';
import { Job } from './jobs.js';
import { Person } from './people.js';

/** A bench, or a machine of the shop that steps need. */
@Entity('bench')
export class BenchRow {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'text', unique: true }) name: string;
  @Column({ type: 'text' }) kind: BenchKind;
  /** Nothing: whenever the shop is open. */
  @Column({ type: 'jsonb', nullable: true }) hours: ShopHours | null;
  /** Why it is out of use. */
  @Column({ type: 'text', name: 'out_why', nullable: true }) out: string | null;
  @Column({ type: 'int', default: 1 }) version: number;
  /** Who may use it; nobody named: everybody. */
  @ManyToMany(() => Person)
  @JoinTable({ name: 'bench_person', joinColumn: { name: 'bench_id' }, inverseJoinColumn: { name: 'person_id' } })
  who: Relation<Person>[];
}

/** At which bench the unit of a job stands. */
@Entity('job_bench')
export class JobBench {
  @PrimaryColumn({ type: 'uuid', name: 'job_id' }) jobId: string;
  @Column({ type: 'uuid', name: 'bench_id' }) benchId: string;
  @Column({ type: 'timestamptz', default: () => 'now()' }) since: Date;
  @ManyToOne(() => Job) @JoinColumn({ name: 'job_id' }) job: Relation<Job>;
}
