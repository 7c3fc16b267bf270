import { wording } from './issues.js';
import { workings } from '../workings.js';

/** What a working answers; throws when it refuses. */
export function output(id: string, input: object): Record<string, unknown> {
  const result = workings.run(id, input);
  if (!result?.ok) throw new Error(result ? result.issues.map(wording).join('; ') : `no working ${id}`);
  return result.run.output;
}

/** The words with which a working refuses; throws when it does not. */
export function refused(id: string, input: object): string {
  const result = workings.run(id, input);
  if (!result || result.ok) throw new Error('was not refused');
  return result.issues.map(wording).join('; ');
}
