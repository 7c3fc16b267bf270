import { IsString, Matches, MaxLength } from 'class-validator';

/** A line of words that must not be empty. */
export function TextLine(what: string, longest = 120): PropertyDecorator {
  return (target, property) => {
    IsString()(target, property);
    Matches(/\S/u, { message: `is missing: ${what}` })(target, property);
    MaxLength(longest, { message: `is too long; at most ${longest} letters are kept` })(target, property);
  };
}
