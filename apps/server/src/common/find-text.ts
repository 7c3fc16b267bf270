import { cutText } from '@jubb/sheet';

const LONGEST_FIND = 100;

/** What a list is searched by: cut to what a search needs, and nothing where it was sent twice or not at all. */
export function findText(given: unknown): string {
  return typeof given === 'string' ? cutText(given, LONGEST_FIND) : '';
}
