import { registerDecorator } from 'class-validator';

/** A finite number that is written in full with so many decimals; a figure too small to be written so is none of them. */
export function Decimals(most: number, message: string): PropertyDecorator {
  return (target, property) =>
    registerDecorator({
      name: 'isNumber',
      target: target.constructor,
      propertyName: String(property),
      constraints: [{}],
      validator: {
        validate: (given: unknown) => typeof given === 'number' && Number.isFinite(given) && Number(given.toFixed(most)) === given,
        defaultMessage: () => message,
      },
    });
}
