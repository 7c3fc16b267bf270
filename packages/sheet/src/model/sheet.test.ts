import { readSheetFile } from '../reading/read.js';
import { sheetFileSchema } from '../reading/schema.js';
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { workings } from '@jubb/core';
import { Ajv2020 } from 'ajv/dist/2020.js';

const text = readFileSync(new URL('../../../../apps/server/demo/sheets/harrowmere-th6-front-hub.json', import.meta.url), 'utf8');
type Json = Record<string, unknown>;
const sheet = (): Json => JSON.parse(text) as Json;

/** The published schema, read by somebody else's validator. */
const fits = new Ajv2020({ allErrors: true, strict: false, validateFormats: false }).compile(sheetFileSchema());

describe('the published JSON Schema', () => {
  test('takes the demo sheet, as the import does', () => {
    expect(fits(sheet()) || fits.errors).toBe(true);
    expect(readSheetFile(text).ok).toBe(true);
  });

  test.each([
    ['an unknown field', (file: Json) => ({ ...file, colour: 'red' })],
    ['a missing title', ({ title: _, ...file }: Json) => file],
    ['an older format', (file: Json) => ({ ...file, format: 'jubb-sheet/0' })],
    ['a stage that is none', (file: Json) => ({ ...file, steps: [{ ...(file['steps'] as Json[])[0], stage: 'polish' }] })],
    ['a count in words', (file: Json) => ({ ...file, joints: [{ ...(file['joints'] as Json[])[0], count: 'ten' }] })],
    ['a torque that is a number', (file: Json) => ({ ...file, joints: [{ ...(file['joints'] as Json[])[0], torque: 108 }] })],
    ['no parts', (file: Json) => ({ ...file, parts: [] })],
  ])('refuses %s, as the import does', (_, change) => {
    const changed = change(sheet());
    expect(fits(changed)).toBe(false);
    expect(readSheetFile(JSON.stringify(changed)).ok).toBe(false);
  });
});

describe('what the schema cannot say, the import does, with the line', () => {
  const lineOf = (part: string): number => text.slice(0, text.indexOf(part)).split('\n').length;
  test.each([
    ['"figure": "108 N·m"', '"figure": "108 kPa"', /is a pressure; a torque is asked/u],
    ['"figure": "108 N·m"', '"figure": "108"', /has no unit; say which is meant \(N·m/u],
    ['"figure": "108 N·m"', '"figure": "-5 N·m"', /"-5 N·m" is too small/u],
    ['"from": "34.965 mm"', '"from": "40 m"', /"40 m" is too large; the most allowed is 5000 mm/u],
    [
      '"part": "wheel-nuts",\n      "count": 10',
      '"part": "wheel-bolts",\n      "count": 10',
      /a part "wheel-bolts", which the sheet does not have/u,
    ],
    ['"to": "0.13 mm"', '"to": "0.01 mm"', /upside down/u],
    ['"closedBy": "cap-on"', '"closedBy": "cap-up"', /a step "cap-up", which the sheet does not have/u],
    ['"passes": [', '"passes": [0.9, ', /must rise to 1/u],
  ])('%s → %s', (from, to, words) => {
    expect(text).toContain(from);
    const read = readSheetFile(text.replace(from, to));
    expect(read.ok).toBe(false);
    if (read.ok) return;
    expect(read.issues[0]?.message).toMatch(words);
    expect(Math.abs((read.issues[0]?.line ?? 0) - lineOf(from))).toBeLessThanOrEqual(2);
  });

  test('wherever it is cut off, it is refused, and with a line of the file', () => {
    for (let length = 0; length < text.length - 2; length += 997) {
      const read = readSheetFile(text.slice(0, length));
      expect(read.ok).toBe(false);
      if (!read.ok) expect(read.issues[0]?.line).toBeLessThanOrEqual(text.slice(0, length).split('\n').length);
    }
  });
});

describe('the JSON Schema of a working', () => {
  test.each(workings.list().map((working) => [working.id, working] as const))('%s: its example fits', (_, working) => {
    const validate = new Ajv2020({ strict: false, validateFormats: false }).compile(working.schema);
    expect(validate(working.example) || validate.errors).toBe(true);
    expect(validate({ ...working.example, colour: 'red' })).toBe(false);
  });
});
