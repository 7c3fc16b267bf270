import type { WayInLine } from '@jubb/book';
import { Column, Entity, JoinColumn, ManyToOne, OneToMany, PrimaryColumn, PrimaryGeneratedColumn, type Relation } from 'typeorm';
import { Person } from './people.js';

@Entity('customer')
export class Customer {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text', nullable: true }) phone: string | null;
  @Column({ type: 'text', nullable: true }) email: string | null;
  @Column({ type: 'text', nullable: true }) address: string | null;
  @Column({ type: 'int', default: 1 }) version: number;
  @OneToMany(() => Machine, ({ customer }) => customer) machines: Relation<Machine>[];
}

@Entity('machine')
export class Machine {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'uuid', name: 'customer_id' }) customerId: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) serial: string;
  @ManyToOne(() => Customer, ({ machines }) => machines) @JoinColumn({ name: 'customer_id' }) customer: Relation<Customer>;
  @OneToMany(() => Unit, ({ machine }) => machine) units: Relation<Unit>[];
}

/** How one gets at the units of a machine. */
@Entity('way_in')
export class WayIn {
  @PrimaryColumn({ type: 'uuid', name: 'machine_id' }) machineId: string;
  @Column({ type: 'jsonb' }) lines: readonly WayInLine[];
  @Column({ type: 'int' }) version: number;
  @Column({ type: 'uuid', name: 'edited_by' }) editedBy: string;
  @Column({ type: 'timestamptz', name: 'edited_at' }) editedAt: Date;
  @ManyToOne(() => Machine) @JoinColumn({ name: 'machine_id' }) machine: Relation<Machine>;
  @ManyToOne(() => Person) @JoinColumn({ name: 'edited_by' }) editor: Relation<Person>;
}

@Entity('unit')
export class Unit {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'uuid', name: 'machine_id' }) machineId: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) serial: string;
  @ManyToOne(() => Machine, ({ units }) => units) @JoinColumn({ name: 'machine_id' }) machine: Relation<Machine>;
}
