import type { CareView, ShopHours } from '@jubb/book';
import type { Hazard, Role } from '@jubb/sheet';
import type { ChangedField, ChangedThing, ShopRule } from '@jubb/wire';
import { Column, Entity, JoinColumn, ManyToOne, PrimaryColumn, PrimaryGeneratedColumn, type Relation } from 'typeorm';

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
  /** When somebody is here; nothing until it is said. */
  @Column({ type: 'jsonb', nullable: true }) hours: ShopHours | null;
  /** SHA-256 of its picture. */
  @Column({ type: 'text', nullable: true }) logo: string | null;
  @Column({ type: 'int' }) version: number;
  @Column({ type: 'text', name: 'session_secret' }) sessionSecret: string;
  /** Counted up by a trigger with every change of a sheet. */
  @Column({ type: 'bigint', name: 'sheets_version', insert: false, update: false }) sheetsVersion: string;
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
  /** Base32 secret of a second factor, and the last step of its clock that was used. */
  @Column({ type: 'text', name: 'second_secret', nullable: true, select: false }) secondSecret: string | null;
  @Column({ type: 'bigint', name: 'second_step', nullable: true, select: false }) secondStep: string | null;
  /** Who left has no way in; what they kept stays theirs. */
  @Column({ type: 'timestamptz', name: 'left_at', nullable: true }) leftAt: Date | null;
  @Column({ type: 'int', default: 1 }) version: number;
}

/** A certificate of licensed practice; one that is over stays until somebody takes it off. */
@Entity('licence')
export class LicenceRow {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'uuid', name: 'person_id' }) personId: string;
  @Column({ type: 'text' }) covers: Hazard;
  @Column({ type: 'text' }) number: string;
  @Column({ type: 'text', name: 'given_by' }) givenBy: string;
  @Column({ type: 'date', nullable: true }) until: string | null;
  @Column({ type: 'uuid', name: 'paper_id', nullable: true }) paperId: string | null;
  @Column({ type: 'uuid', name: 'kept_by' }) keptBy: string;
  @Column({ type: 'timestamptz', name: 'kept_at', insert: false }) keptAt: Date;
}

/** What was changed of the shop's own lists: who, when, and each field before and after. Never of a secret. */
@Entity('shop_change')
export class ShopChange {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'timestamptz', default: () => 'now()' }) at: Date;
  @Column({ type: 'uuid', name: 'person_id' }) personId: string;
  @Column({ type: 'text' }) what: ChangedThing;
  /** What it is called: a person, the tag of a tool. */
  @Column({ type: 'text' }) subject: string;
  /** "added", "changed", "left". */
  @Column({ type: 'text' }) act: string;
  @Column({ type: 'jsonb' }) fields: readonly ChangedField[];
  @ManyToOne(() => Person) @JoinColumn({ name: 'person_id' }) person: Relation<Person>;
}

@Entity('tablet')
export class Tablet {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'text', name: 'token_hash', select: false }) tokenHash: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'uuid', name: 'added_by' }) addedBy: string;
  @Column({ type: 'timestamptz', name: 'added_at', insert: false }) addedAt: Date;
}

/** Who logged in on a tablet with a password. */
@Entity('tablet_person')
export class TabletPerson {
  @PrimaryColumn({ type: 'uuid', name: 'tablet_id' }) tabletId: string;
  @PrimaryColumn({ type: 'uuid', name: 'person_id' }) personId: string;
  @Column({ type: 'timestamptz', insert: false }) since: Date;
  @ManyToOne(() => Person) @JoinColumn({ name: 'person_id' }) person: Relation<Person>;
}

@Entity('notice')
export class Notice {
  @PrimaryGeneratedColumn('uuid') id: string;
  @Column({ type: 'text' }) topic: string;
  @Column({ type: 'text' }) words: string;
  /** Nobody: it is for everybody. */
  @Column({ type: 'uuid', name: 'person_id', nullable: true }) personId: string | null;
  @Column({ type: 'timestamptz', default: () => 'now()' }) at: Date;
  @Column({ type: 'uuid', array: true, name: 'seen_by', default: '{}' }) seenBy: string[];
}

/** Where to look first in the demo; a shop of one's own has none. */
@Entity('demo_sight')
export class DemoSight {
  @PrimaryColumn({ type: 'int' }) place: number;
  @Column({ type: 'text' }) words: string;
  @Column({ type: 'text' }) path: string;
}

/** Backups, rehearsals and walks, written by the commands that make them. */
@Entity('shop_care')
export class ShopCare {
  @PrimaryColumn({ type: 'bigint', generated: 'identity', insert: false, update: false }) id: string;
  @Column({ type: 'timestamptz', insert: false, update: false }) at: Date;
  @Column({ type: 'text' }) what: CareView['what'];
  @Column({ type: 'boolean', name: 'is_good' }) isGood: boolean;
  @Column({ type: 'text' }) words: string;
}
