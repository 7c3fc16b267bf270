import type { Hold } from '@jubb/book';
import type { CompletePart, JobScope, Role, SheetFile, Stage, Tool } from '@jubb/sheet';
import type { ShopRule } from '@jubb/wire';
import { Column, Entity, PrimaryColumn, PrimaryGeneratedColumn, VersionColumn } from 'typeorm';

@Entity('shop')
export class Shop {
  @PrimaryColumn({ type: 'int' }) id: number;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) zone: string;
  @Column({ type: 'text' }) currency: string;
  /** An hour of labour in minor units. */
  @Column({ type: 'int', name: 'hourly_minor' }) hourlyMinor: number;
  @Column({ type: 'float8', name: 'tax_share' }) taxShare: number;
  @Column({ type: 'float8', name: 'margin_share' }) marginShare: number;
  @Column({ type: 'jsonb' }) rules: ShopRule[];
  /** So many digits a PIN must have at least. */
  @Column({ type: 'int', name: 'pin_digits' }) pinDigits: 4 | 6;
  @Column({ type: 'int' }) version: number;
  @Column({ type: 'text', name: 'session_secret' }) sessionSecret: string;
}

@Entity('person')
export class Person {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) login: string;
  @Column({ type: 'text' }) role: Role;
  @Column({ type: 'text', name: 'password_hash', select: false }) passwordHash: string;
  /** Good where the person logged in once only; none until they set one. */
  @Column({ type: 'text', name: 'pin_hash', nullable: true, select: false }) pinHash: string | null;
  @Column({ type: 'int', name: 'pin_digits', select: false }) pinDigits: number;
}

@Entity('customer')
export class Customer {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text', nullable: true }) phone: string | null;
}

@Entity('machine')
export class Machine {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'uuid', name: 'customer_id' }) customerId: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) serial: string;
}

@Entity('unit')
export class Unit {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'uuid', name: 'machine_id' }) machineId: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) serial: string;
}

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
}

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
}

@Entity('job')
export class Job {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'int', insert: false, update: false }) number: number;
  @Column({ type: 'uuid', name: 'unit_id' }) unitId: string;
  @Column({ type: 'uuid', name: 'sheet_revision_id' }) sheetRevisionId: string;
  @Column({ type: 'text', insert: false, update: false }) stage: Stage;
  @Column({ type: 'text' }) complaint: string;
  @Column({ type: 'timestamptz' }) promise: Date;
  @Column({ type: 'int', name: 'estimate_minor' }) estimateMinor: number;
  /** Follows the entries that hold and take up. */
  @Column({ type: 'jsonb', nullable: true, insert: false, update: false }) hold: Hold | null;
  @Column({ type: 'jsonb', nullable: true }) scope: JobScope | null;
  @VersionColumn({ type: 'int' }) version: number;
}
