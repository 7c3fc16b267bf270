import { parseQuantity, wording, type Quantity } from '@jubb/core';
import { registerDecorator, type ValidationOptions } from 'class-validator';

/** A figure with its unit, of one of the quantities: "108 N·m" where a torque is asked. */
export function IsFigure(quantities: Quantity | readonly Quantity[], options?: ValidationOptions): PropertyDecorator {
  const wanted = typeof quantities === 'string' ? [quantities] : quantities;
  return (target, property) => {
    registerDecorator({
      name: 'isFigure',
      target: target.constructor,
      propertyName: String(property),
      ...(options ? { options } : {}),
      constraints: [wanted],
      validator: {
        validate: (received: unknown) =>
          typeof received === 'string' && wanted.some((quantity) => parseQuantity(received, quantity, '').ok),
        defaultMessage: (args) => {
          const [first = 'length'] = wanted;
          if (typeof args?.value !== 'string') return `must be text: a ${wanted.join(' or ')} with its unit`;
          const parsed = parseQuantity(args.value, first, String(property));
          return parsed.ok ? '' : wording(parsed.issue).replace(/^[^:]+: /u, '');
        },
      },
    });
  };
}
