import { Column, Entity, JoinColumn, ManyToOne, OneToMany, PrimaryGeneratedColumn, type Relation } from 'typeorm';

@Entity('customer')
export class Customer {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text', nullable: true }) phone: string | null;
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

@Entity('unit')
export class Unit {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'uuid', name: 'machine_id' }) machineId: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) serial: string;
  @ManyToOne(() => Machine, ({ units }) => units) @JoinColumn({ name: 'machine_id' }) machine: Relation<Machine>;
}
