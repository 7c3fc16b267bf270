import { configure } from 'safe-stable-stringify';

const stable = configure({ bigint: false, circularValue: Error });

/** The canonical JSON (RFC 8785) of anything that came as JSON: members by their names, numbers as ECMAScript writes them. */
export function canonicalJson(value: unknown): string {
  return stable(value) ?? 'null';
}
