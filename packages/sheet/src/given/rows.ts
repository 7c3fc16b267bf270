import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsObject, ValidateNested } from 'class-validator';

/** A list of so many things, each of named fields; `message` where it is too short, or is not just so long. */
export function RowsOf(of: () => new () => object, most: number, least = 0, message?: string): PropertyDecorator {
  return (target, property) => {
    IsArray()(target, property);
    if (least > 0) ArrayMinSize(least, { message: message ?? `must hold at least ${least}` })(target, property);
    ArrayMaxSize(most, { message: message !== undefined && most === least ? message : `is too long; at most ${most}` })(target, property);
    // A list within the list would be taken for lines of its own, and looked at no further.
    IsObject({ each: true, message: 'must hold lines of named fields' })(target, property);
    ValidateNested({ each: true })(target, property);
    Type(of)(target, property);
  };
}

/** A thing of named fields within another; a list is none. */
export function PartOf(of: () => new () => object): PropertyDecorator {
  return (target, property) => {
    IsObject({ message: 'must be named fields' })(target, property);
    ValidateNested()(target, property);
    Type(of)(target, property);
  };
}
