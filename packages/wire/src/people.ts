import type { Licence } from '@jubb/book';
import { HAZARDS, ROLES, type Hazard, type Role } from '@jubb/sheet';
import { Day, TextLine, Version } from '@jubb/sheet/given';
import 'reflect-metadata';
import { IsBoolean, IsIn, IsOptional, IsString, IsUUID, Matches, MaxLength, MinLength } from 'class-validator';

/** What somebody is called at the log-in. */
export function LoginName(): PropertyDecorator {
  return Matches(/^[a-z0-9._-]{2,60}$/u, { message: 'must be 2 to 60 small letters, digits, points or hyphens' });
}

/** A password that is set: at least ten letters. */
export function NewPassword(): PropertyDecorator {
  return (target, property) => {
    IsString()(target, property);
    MinLength(10, { message: 'is too short; at least 10 letters' })(target, property);
    MaxLength(200, { message: 'is too long; at most 200 letters' })(target, property);
  };
}

function Works(): PropertyDecorator {
  return IsIn(ROLES, { message: `must be one of: ${ROLES.join(', ')}` });
}

/** Somebody who begins to work here. */
export class NewPersonBody {
  @TextLine('what are they called?', 80) name: string;
  @LoginName() login: string;
  @Works() role: Role;
  @NewPassword() password: string;
}

/** Somebody as they are to be from now on. */
export class PersonBody {
  @Version() version: number;
  @TextLine('what are they called?', 80) name: string;
  @Works() role: Role;
  /** Works here no more: no way in, and what they kept stays. */
  @IsBoolean() hasLeft: boolean;
}

/** A certificate of licensed practice. */
export class LicenceBody {
  @IsIn(HAZARDS, { message: 'is missing: what does it let them work at?' }) covers: Hazard;
  @TextLine('what is its number?', 60) number: string;
  @TextLine('who gave it?', 80) givenBy: string;
  /** The last day on which it is good; nothing where it has no end. */
  @IsOptional() @Day() until?: string;
  /** Brought in as a PDF. */
  @IsOptional() @IsUUID() paperId?: string;
}

export class PasswordBody {
  @NewPassword() password: string;
}

export interface PersonLine {
  readonly id: string;
  readonly name: string;
  readonly login: string;
  readonly role: Role;
  readonly leftAt: string | null;
  readonly version: number;
  /** Tablets on which they logged in once, and may use their PIN. */
  readonly tablets: number;
  readonly licences: readonly Licence[] | null;
  /** Whether a password of theirs wants a code beside it. */
  readonly hasSecond: boolean;
}

/** One's own second factor: that there is one, or a fresh secret to begin with, as it is written and as a code to scan. */
export type SecondView =
  { readonly isSet: true } | { readonly isSet: false; readonly secret: string; readonly uri: string; readonly picture: string };

export type ChangedThing = 'person' | 'tool' | 'shop' | 'customer' | 'machine' | 'unit' | 'tablet' | 'place' | 'supplier';

export interface ChangedField {
  readonly field: string;
  readonly before: string;
  readonly after: string;
}

/** One change of the shop's own lists. */
export interface ChangeLine {
  readonly id: string;
  readonly at: string;
  readonly person: string;
  readonly what: ChangedThing;
  readonly subject: string;
  readonly act: string;
  readonly fields: readonly ChangedField[];
}
