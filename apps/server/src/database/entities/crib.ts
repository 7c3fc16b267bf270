import type { Tool } from '@jubb/sheet';
import type { LiveLine, ToolCheckBody } from '@jubb/wire';
import { Column, Entity, JoinColumn, ManyToOne, OneToOne, PrimaryColumn, PrimaryGeneratedColumn, type Relation } from 'typeorm';
import { Person, Tablet } from './people.js';

@Entity('tool')
export class ToolRow {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'text' }) tag: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) kind: string;
  @Column({ type: 'text' }) quantity: Tool['quantity'];
  @Column({ type: 'text' }) unit: string;
  @Column({ type: 'double precision' }) low: number;
  @Column({ type: 'double precision' }) high: number;
  @Column({ type: 'double precision' }) resolution: number;
  @Column({ type: 'double precision' }) u: number;
  @Column({ type: 'double precision' }) s: number;
  @Column({ type: 'double precision', nullable: true }) length: number | null;
  @Column({ type: 'date', name: 'calibration_due', nullable: true }) calibrationDue: string | null;
  @Column({ type: 'int', name: 'check_every_days', nullable: true }) everyDays: number | null;
  /** Out of use for good since then, and why. */
  @Column({ type: 'date', nullable: true }) retired: string | null;
  @Column({ type: 'text', name: 'retired_why', nullable: true }) retiredWhy: string | null;
  /** SHA-256 of its photo. */
  @Column({ type: 'text', nullable: true }) picture: string | null;
  @Column({ type: 'uuid', name: 'lent_to', nullable: true }) lentTo: string | null;
  @Column({ type: 'timestamptz', name: 'lent_at', nullable: true }) lentAt: Date | null;
  @Column({ type: 'int', default: 1 }) version: number;
  @ManyToOne(() => Person) @JoinColumn({ name: 'lent_to' }) holder: Relation<Person> | null;
}

@Entity('tool_check')
export class ToolCheck {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'tool_id' }) toolId: string;
  @Column({ type: 'text' }) verdict: ToolCheckBody['verdict'];
  @Column({ type: 'jsonb' }) points: ToolCheckBody['points'];
  @Column({ type: 'text' }) against: string;
  @Column({ type: 'text', nullable: true }) certificate: string | null;
  /** Its certificate as a PDF. */
  @Column({ type: 'uuid', name: 'paper_id', nullable: true }) paperId: string | null;
  @Column({ type: 'date', nullable: true }) due: string | null;
  @Column({ type: 'uuid', name: 'person_id' }) personId: string;
  @Column({ type: 'timestamptz', name: 'kept_at', insert: false }) keptAt: Date;
  @ManyToOne(() => Person) @JoinColumn({ name: 'person_id' }) person: Relation<Person>;
}

@Entity('tool_study')
export class ToolStudy {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'tool_id' }) toolId: string;
  @Column({ type: 'jsonb' }) readings: unknown;
  @Column({ type: 'jsonb' }) result: Record<string, number>;
  @Column({ type: 'uuid', name: 'person_id' }) personId: string;
  @Column({ type: 'timestamptz', name: 'kept_at', insert: false }) keptAt: Date;
  @ManyToOne(() => Person) @JoinColumn({ name: 'person_id' }) person: Relation<Person>;
}

/** A tool that sends what it reads. */
@Entity('instrument')
export class Instrument {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'uuid', name: 'tool_id' }) toolId: string;
  @Column({ type: 'uuid', name: 'tablet_id', nullable: true }) tabletId: string | null;
  @Column({ type: 'boolean' }) clicks: boolean;
  @Column({ type: 'text', name: 'key_hash', nullable: true }) keyHash: string | null;
  @Column({ type: 'jsonb', nullable: true }) last: LiveLine | null;
  @OneToOne(() => ToolRow) @JoinColumn({ name: 'tool_id' }) tool: Relation<ToolRow>;
  @ManyToOne(() => Tablet) @JoinColumn({ name: 'tablet_id' }) tablet: Relation<Tablet> | null;
}

/** What an instrument sent already, for a week. */
@Entity('instrument_heard')
export class InstrumentHeard {
  @PrimaryColumn({ type: 'uuid', name: 'instrument_id' }) instrumentId: string;
  @PrimaryColumn({ type: 'text' }) mark: string;
  @Column({ type: 'timestamptz', name: 'heard_at', default: () => 'now()' }) heardAt: Date;
}
