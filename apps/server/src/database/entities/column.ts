import type { ValueTransformer } from 'typeorm';

/** A `numeric` as a number: the driver hands it over as text, for it may have more digits than a number has. */
export const asNumber: ValueTransformer = {
  from: (text: string | null): number | null => (text === null ? null : Number(text)),
  to: (number: number | null | undefined) => number,
};
