import type { SupplierFault } from '@jubb/sheet';
import type { DeliveredLine, MoveBody, OrderView, StockItemBody } from '@jubb/wire';
import { Column, Entity, JoinColumn, ManyToOne, OneToMany, PrimaryColumn, PrimaryGeneratedColumn, type Relation } from 'typeorm';
import { asNumber } from './column.js';
import { Job } from './jobs.js';
import { Person } from './people.js';

const PIECES = { type: 'numeric', precision: 12, scale: 3, transformer: asNumber } as const;
/** Moved by `move_stock` alone. */
const BY_MOVEMENTS = { insert: false, update: false } as const;

@Entity('stock_item')
export class StockItem {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'text' }) number: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) kind: StockItemBody['kind'];
  @Column({ type: 'text' }) unit: string;
  @Column({ type: 'text', nullable: true }) size: string | null;
  @Column({ type: 'text', nullable: true }) designation: string | null;
  @Column({ type: 'text' }) location: string;
  @Column({ type: 'text', nullable: true }) material: string | null;
  @Column({ type: 'int', nullable: true }) shore: number | null;
  @Column(PIECES) minimum: number;
  @Column({ type: 'int', name: 'price_minor' }) priceMinor: number;
  @Column({ ...PIECES, name: 'on_hand', ...BY_MOVEMENTS }) onHand: number;
  @Column({ ...PIECES, ...BY_MOVEMENTS }) reserved: number;
  @Column({ type: 'float8', name: 'thickness_mm', nullable: true }) thicknessMm: number | null;
  @Column({ type: 'int', default: 1 }) version: number;
  /** What is searched, made by the database. */
  @Column({ type: 'text', nullable: true, select: false, insert: false, update: false }) words: string;
}

/** What of a line is kept for a job. */
@Entity('stock_reservation')
export class StockReservation {
  @PrimaryColumn({ type: 'uuid', name: 'item_id', ...BY_MOVEMENTS }) itemId: string;
  @PrimaryColumn({ type: 'uuid', name: 'job_id', ...BY_MOVEMENTS }) jobId: string;
  @Column({ ...PIECES, ...BY_MOVEMENTS }) quantity: number;
}

/** Kept by `move_stock`; the database refuses to change or remove one. */
@Entity('stock_movement')
export class StockMovement {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'bigint', generated: 'identity', ...BY_MOVEMENTS }) seq: string;
  @Column({ type: 'uuid', name: 'item_id', ...BY_MOVEMENTS }) itemId: string;
  @Column({ type: 'text', ...BY_MOVEMENTS }) kind: MoveBody['kind'];
  @Column({ ...PIECES, ...BY_MOVEMENTS }) quantity: number;
  @Column({ ...PIECES, name: 'on_hand_after', ...BY_MOVEMENTS }) onHandAfter: number;
  @Column({ type: 'uuid', name: 'job_id', nullable: true, ...BY_MOVEMENTS }) jobId: string | null;
  @Column({ type: 'text', nullable: true, ...BY_MOVEMENTS }) batch: string | null;
  @Column({ type: 'date', nullable: true, ...BY_MOVEMENTS }) expires: string | null;
  @Column({ type: 'text', nullable: true, ...BY_MOVEMENTS }) words: string | null;
  @Column({ type: 'uuid', name: 'person_id', ...BY_MOVEMENTS }) personId: string;
  @Column({ type: 'timestamptz', name: 'taken_at', ...BY_MOVEMENTS }) takenAt: Date;
  @Column({ type: 'timestamptz', name: 'kept_at', ...BY_MOVEMENTS }) keptAt: Date;
}

/** A count that waits for somebody who may sign it. */
@Entity('stock_count')
export class StockCount {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'item_id' }) itemId: string;
  @Column(PIECES) quantity: number;
  @Column({ type: 'text', nullable: true }) words: string | null;
  @Column({ type: 'uuid', name: 'person_id' }) personId: string;
  @Column({ type: 'timestamptz', name: 'taken_at' }) takenAt: Date;
  @Column({ type: 'timestamptz', name: 'kept_at', insert: false }) keptAt: Date;
  @Column({ type: 'uuid', name: 'settled_by', nullable: true }) settledBy: string | null;
  @Column({ type: 'boolean', name: 'is_taken', nullable: true }) isTaken: boolean | null;
  @ManyToOne(() => Person) @JoinColumn({ name: 'person_id' }) person: Relation<Person>;
}

@Entity('part_order')
export class PartOrder {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'int', generated: 'identity', insert: false, update: false }) number: number;
  @Column({ type: 'text' }) supplier: string;
  @Column({ type: 'text', default: 'open' }) state: OrderView['state'];
  @Column({ type: 'timestamptz', name: 'sent_at', nullable: true }) sentAt: Date | null;
  @Column({ type: 'uuid', name: 'sent_by', nullable: true }) sentBy: string | null;
  @OneToMany(() => PartOrderLine, ({ order }) => order) lines: Relation<PartOrderLine>[];
}

@Entity('part_order_line')
export class PartOrderLine {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'order_id' }) orderId: string;
  @Column({ type: 'text' }) number: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'int' }) quantity: number;
  @Column({ type: 'int', name: 'price_minor' }) priceMinor: number;
  @Column({ type: 'uuid', name: 'job_id', nullable: true }) jobId: string | null;
  @Column({ type: 'int', nullable: true }) confirmed: number | null;
  @Column({ type: 'date', nullable: true }) due: string | null;
  @Column({ type: 'int', default: 0 }) received: number;
  @Column({ type: 'int', default: 0 }) returned: number;
  @ManyToOne(() => PartOrder, ({ lines }) => lines) @JoinColumn({ name: 'order_id' }) order: Relation<PartOrder>;
  @ManyToOne(() => Job) @JoinColumn({ name: 'job_id' }) job: Relation<Job> | null;
}

/** A delivery that was taken in. */
@Entity('goods_in')
export class GoodsIn {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'order_id' }) orderId: string;
  @Column({ type: 'jsonb' }) lines: readonly DeliveredLine[];
  @Column({ type: 'uuid', name: 'person_id' }) personId: string;
  @Column({ type: 'timestamptz', name: 'kept_at', insert: false }) keptAt: Date;
}

/** What leaves the shop, until the other side has answered. */
@Entity('outbox')
export class OutboxRow {
  @PrimaryColumn({ type: 'text' }) kind: 'order';
  @PrimaryColumn({ type: 'uuid' }) reference: string;
  @Column({ type: 'timestamptz', name: 'made_at', insert: false }) madeAt: Date;
  @Column({ type: 'int', default: 0 }) tries: number;
  @Column({ type: 'timestamptz', name: 'next_at', insert: false }) nextAt: Date;
  @Column({ type: 'timestamptz', name: 'went_at', nullable: true }) wentAt: Date | null;
}

/** Whom the shop orders from: by hand, or of the stand-in, which keeps its books as a supplier would. */
@Entity('supplier')
export class Supplier {
  @PrimaryColumn({ type: 'text' }) name: string;
  @Column({ type: 'boolean', name: 'by_hand', default: false }) byHand: boolean;
  @Column({ type: 'text', nullable: true }) email: string | null;
  @Column({ type: 'text', nullable: true }) phone: string | null;
  /** Our number with them. */
  @Column({ type: 'text', nullable: true }) account: string | null;
  /** Until it is here, as a rule. */
  @Column({ type: 'int', name: 'lead_days', default: 3 }) leadDays: number;
  /** Nothing is ordered there any more. */
  @Column({ type: 'boolean', name: 'is_gone', default: false }) isGone: boolean;
  @Column({ type: 'int', default: 1 }) version: number;
  @Column({ type: 'text', default: 'none' }) fault: SupplierFault;
  @OneToMany(() => SupplierItem, ({ from }) => from) items: Relation<SupplierItem>[];
}

@Entity('supplier_item')
export class SupplierItem {
  @PrimaryColumn({ type: 'text' }) supplier: string;
  @PrimaryColumn({ type: 'text' }) number: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'int', name: 'price_minor' }) priceMinor: number;
  @Column({ type: 'jsonb', default: [] }) breaks: { readonly from: number; readonly priceMinor: number }[];
  @Column({ type: 'int', name: 'lead_days' }) leadDays: number;
  @Column({ type: 'int', name: 'lead_spread' }) leadSpread: number;
  @Column({ type: 'boolean', default: true }) available: boolean;
  @Column({ type: 'text', name: 'superseded_by', nullable: true }) supersededBy: string | null;
  @ManyToOne(() => Supplier, ({ items }) => items) @JoinColumn({ name: 'supplier' }) from: Relation<Supplier>;
}

/** How the supplier answers an order: line by line what comes, at which price, and when. */
export interface SupplierAnswer {
  readonly lines: readonly {
    readonly lineId: string;
    readonly confirmed: number;
    readonly priceMinor: number;
    readonly due: string | null;
  }[];
}

export interface DeliveryNote {
  readonly lineId: string;
  readonly number: string;
  readonly quantity: number;
}

@Entity('supplier_order')
export class SupplierOrder {
  @PrimaryColumn({ type: 'uuid' }) reference: string;
  @Column({ type: 'text' }) supplier: string;
  @Column({ type: 'jsonb' }) answer: SupplierAnswer;
  @Column({ type: 'jsonb', default: [] }) notes: readonly DeliveryNote[];
  @Column({ type: 'timestamptz', name: 'taken_at', insert: false }) takenAt: Date;
  @ManyToOne(() => Supplier) @JoinColumn({ name: 'supplier' }) from: Relation<Supplier>;
}
