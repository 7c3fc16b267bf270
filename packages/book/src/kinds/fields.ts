import { ArrayMaxSize, ArrayMinSize, IsArray, IsInt, IsNumber, IsString, Matches, Max, MaxLength, Min } from 'class-validator';

const REF = /^[a-z0-9]+(-{1,2}[a-z0-9]+)*$/u;

export function Words(longest = 1000): PropertyDecorator {
  return (target, property) => {
    IsString()(target, property);
    Matches(/\S/u, { message: 'must not be empty' })(target, property);
    MaxLength(longest, { message: `is too long; at most ${longest} letters are kept` })(target, property);
  };
}

export function Ref(): PropertyDecorator {
  return Matches(REF, { message: 'must be a ref of the sheet' });
}

/** A file by its content: the SHA-256 of its bytes, in hexadecimal. */
export function FileRef(): PropertyDecorator {
  return Matches(/^[0-9a-f]{64}$/u, { message: 'must be the SHA-256 of a file, 64 hexadecimal digits' });
}

/** How many of something: 1 to 1000. */
export function Pieces(): PropertyDecorator {
  return (target, property) => {
    IsInt({ message: 'must be a whole number' })(target, property);
    Min(1, { message: 'must be at least 1' })(target, property);
    Max(1000, { message: 'must be at most 1000' })(target, property);
  };
}

export function Figures(least: number, most: number, fewest = 1): PropertyDecorator {
  return (target, property) => {
    IsArray()(target, property);
    ArrayMinSize(fewest, { message: 'needs at least one reading' })(target, property);
    ArrayMaxSize(50, { message: 'has more than 50 readings' })(target, property);
    IsNumber({}, { each: true, message: 'must be numbers' })(target, property);
    Min(least, { each: true, message: `must not be under ${least}` })(target, property);
    Max(most, { each: true, message: `must not be over ${most}` })(target, property);
  };
}
