import 'reflect-metadata';
import { RowsOf } from '../given/rows.js';
import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsDefined, IsObject, IsString, Matches, MaxLength, MinLength, ValidateNested } from 'class-validator';

/** What the fields of a sheet's lines may be. */

const REF = /^[a-z0-9]+(-[a-z0-9]+)*$/u;

/** A short name in small letters by which other lines point here. */
export function Ref(): PropertyDecorator {
  return Matches(REF, { message: 'must be small letters, digits and single hyphens, such as "wheel-nuts"' });
}

export function Name(longest = 200): PropertyDecorator {
  return (target, property) => {
    IsString()(target, property);
    MinLength(1, { message: 'must not be empty' })(target, property);
    MaxLength(longest)(target, property);
  };
}

export function Rows(of: () => new () => object, most = 6000): PropertyDecorator {
  return RowsOf(of, most);
}

/** Lines of words. */
export function Lines(most = 20, longest = 400): PropertyDecorator {
  return (target, property) => {
    IsArray()(target, property);
    ArrayMaxSize(most)(target, property);
    IsString({ each: true })(target, property);
    MinLength(1, { each: true, message: 'must not hold an empty line' })(target, property);
    MaxLength(longest, { each: true })(target, property);
  };
}

/** Refs of other lines. */
export function Refs(most = 60): PropertyDecorator {
  return (target, property) => {
    IsArray()(target, property);
    ArrayMaxSize(most)(target, property);
    Matches(REF, { each: true, message: 'must be refs in small letters, digits and single hyphens' })(target, property);
  };
}

export function Nested(of: () => new () => object): PropertyDecorator {
  return (target, property) => {
    // By itself it would take what is not there.
    IsDefined({ message: 'is missing' })(target, property);
    // A list would be taken for lines of its own, and an empty one for nothing at all.
    IsObject({ message: 'must be named fields' })(target, property);
    ValidateNested()(target, property);
    Type(of)(target, property);
  };
}
