import { reviewSheet } from './review/review.js';
import { sheetDifferences } from './editing/differences.js';
import { mergeSheets } from './editing/merge.js';
import { fromTemplate } from './editing/template.js';
import { all, alternator, named, read, texts } from './library.test-kit.js';
import type { SheetFile } from './model/file.js';
import { candidatesOf } from './model/identify.js';
import { scopeSheet, withoutSide } from './model/scope.js';
import { readCell, writeCell } from './lines/cells.js';
import { COLUMNS } from './lines/columns.js';
import { CSV_LISTS, readCsv, writeCsv } from './reading/csv.js';
import { readSheetFile } from './reading/read.js';
import { sheetFileSchema } from './reading/schema.js';
import { writeYaml } from './reading/yaml.js';
import { FAMILIES } from './words.js';
import { describe, expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';

const fits = new Ajv2020({ allErrors: true, strict: false, validateFormats: false }).compile(sheetFileSchema());

describe('the library', () => {
  test('has a sheet of every family', () => {
    expect([...new Set(all.map(([, sheet]) => sheet.family))].toSorted()).toEqual([...FAMILIES].toSorted());
  });

  test.each(all)('%s: fits the published schema, and the checker finds nothing', (_, sheet) => {
    expect(fits(sheet) || fits.errors).toBe(true);
    expect(reviewSheet(sheet).findings.filter(({ severity }) => severity !== 'note')).toEqual([]);
    expect(sheet.steps.length).toBeGreaterThanOrEqual(25);
    expect(sheet.steps.length).toBeLessThanOrEqual(80);
    expect(sheet.joints.length).toBeGreaterThanOrEqual(6);
    expect(sheet.joints.length).toBeLessThanOrEqual(20);
  });
});

describe('out and in again is the same', () => {
  test.each(all)('%s as YAML', (_, sheet) => {
    expect(read(writeYaml(sheet))).toEqual(sheet);
  });

  // To older readers a question mark in braces is the sign of a key, and a bare "no" is no word.
  test.each(texts)('%s holds nothing that an older reader of YAML takes otherwise', (_, text) => {
    expect(text).not.toMatch(/[{,] [\w-]+: [^"'\s{}[\],][^"'\n{}[\],]*\?/u);
    expect(text).not.toMatch(/: (?:yes|no|on|off)\s*(?:[,}]|$)/imu);
    expect(text).not.toMatch(/^\s*(?:- |\{ )?(?:yes|no|on|off):/imu);
  });

  /** Words with everything that YAML or CSV could trip over. */
  const words = fc
    .oneof(
      fc.string({ unit: 'grapheme', minLength: 1, maxLength: 60 }),
      fc.constantFrom(
        'yes',
        'null',
        '- a',
        'a: b',
        '#no',
        '1e3',
        '0o7',
        "it's",
        '"',
        ' =1+1',
        '&a',
        '*a',
        '|',
        '>',
        '%',
        '@x',
        'ünïcödé',
        '12:30',
        '~',
        '{a}',
        '[a',
      ),
    )
    .filter((text) => text.trim() !== '' && !/[\p{Cc}\p{Cs}\p{Zl}\p{Zp}\ufeff]/u.test(text));
  const refs = fc.uniqueArray(fc.stringMatching(/^[a-z0-9]{1,6}(-[a-z0-9]{1,5}){0,2}$/u), { minLength: 1, maxLength: 8 });
  const generated = refs.chain((own) =>
    fc.record({
      notes: words,
      parts: fc.tuple(
        ...own.map((ref) =>
          fc.record({
            ref: fc.constant(ref),
            name: words,
            note: words,
            quantity: fc.integer({ min: 1, max: 1000 }),
            policy: fc.constantFrom('renew', 'inspect', 'reuse'),
          }),
        ),
      ),
      limits: fc.tuple(
        ...own.map((ref) =>
          fc.record({
            ref: fc.constant(`l-${ref}`),
            name: words,
            kind: fc.constant('size'),
            quantity: fc.constant('length'),
            service: fc.record({
              from: fc.integer({ min: 0, max: 900 }).map((um) => `${um} µm`),
              to: fc.integer({ min: 1, max: 50 }).map((mm) => `${mm},5 mm`),
              trust: fc.constantFrom('published', 'shop'),
              source: words,
              page: words.map((text) => text.slice(0, 20)).filter((text) => text.trim() !== ''),
            }),
            tool: fc.constant('micrometer'),
            how: words,
            whenOut: words,
          }),
        ),
      ),
    }),
  );
  const plainSheet = (lists: object): SheetFile =>
    ({
      format: 'jubb-sheet/1',
      key: 'made-up',
      title: 'Made up',
      family: 'turbocharger',
      make: 'Quennet',
      model: 'X',
      machine: 'test',
      documents: [],
      joints: [],
      settings: [],
      seals: [],
      fluids: [],
      cautions: [],
      steps: [{ ref: 's', stage: 'strip', title: 'S', act: 'A', record: { kind: 'tick' } }],
      customerNotes: [],
      ...lists,
    }) as unknown as SheetFile;

  test('any sheet as JSON and as YAML', () => {
    fc.assert(
      fc.property(generated, (lists) => {
        const sheet = plainSheet(lists);
        expect(read(JSON.stringify(sheet))).toEqual(sheet);
        expect(read(writeYaml(sheet))).toEqual(sheet);
      }),
      { numRuns: 120 },
    );
  });

  test('any list as CSV, with commas, semicolons or tabs', () => {
    fc.assert(
      fc.property(generated, (lists) => {
        const sheet = plainSheet(lists);
        for (const list of ['parts', 'limits'] as const) {
          const csv = readCsv(writeCsv(sheet, list), list, []);
          expect(csv).toMatchObject({ ok: true });
          // A cell holds its text without the blanks around it.
          const trimmed = (line: object): unknown =>
            JSON.parse(JSON.stringify(line), (_, held: unknown) => (typeof held === 'string' ? held.trim() : held));
          if (csv.ok) expect(csv.lines).toEqual((sheet[list] as object[]).map(trimmed));
        }
      }),
      { numRuns: 60 },
    );
  });

  test.each(all)('%s: its parts, joints and limits as CSV leave what they have no column for', (_, sheet) => {
    for (const list of CSV_LISTS) expect(readCsv(writeCsv(sheet, list), list, sheet[list])).toEqual({ ok: true, lines: sheet[list] });
  });

  test('comments of a YAML file outlive a change', () => {
    const text = writeYaml(alternator())
      .replace('joints:', '# Torques were checked in spring.\njoints:')
      .replace('  - ref: through-bolts\n', '  # crosswise!\n  - ref: through-bolts\n');
    const sheet = read(text);
    sheet.joints[0]!.torque!.figure = '7 N·m';
    const written = writeYaml(sheet, text);
    expect(written).toContain('# Torques were checked in spring.');
    expect(written).toContain('# crosswise!');
    expect(read(written)).toEqual(sheet);
  });
});

describe('bad files are refused with line and field', () => {
  const yaml = writeYaml(alternator());
  const bomb = `format: jubb-sheet/1\na: &a [x,x]\nb: &b [*a,*a]\nc: [*b,*b]\n`;
  test.each([
    ['a YAML bomb', bomb, 3, /points to another place/u],
    ['a key twice', yaml.replace('make: Quennet', 'make: Quennet\nmake: Ostrel'), 6, /"make" stands twice/u],
    ['a file of a future format', yaml.replace('jubb-sheet/1', 'jubb-sheet/7'), 1, /newer than "jubb-sheet\/1"/u],
    ['a tag', yaml.replace('make: Quennet', 'make: !!js/function x'), 5, /tag/u],
    [
      'tabs for blanks',
      yaml.replace('  - ref: through-bolts', '\t- ref: through-bolts'),
      yaml.slice(0, yaml.indexOf('  - ref: through-bolts')).split('\n').length,
      /YAML/u,
    ],
    ['a list', '- a\n- b\n', 1, /named fields/u],
    ['nothing', '', 1, /named fields/u],
  ])('%s', (_, text, line, words) => {
    const result = readSheetFile(text);
    expect(result.ok).toBe(false);
    if (result.ok) return;
    expect(result.issues[0]?.message).toMatch(words);
    expect(Math.abs((result.issues[0]?.line ?? 0) - line)).toBeLessThanOrEqual(1);
  });

  type Change = (sheet: SheetFile) => void;
  test.each<[string, Change, RegExp]>([
    [
      'numbers that go round in a ring',
      (sheet) =>
        (sheet.parts[0]!.superseded = [
          { number: 'A', by: 'B' },
          { number: 'B', by: 'A' },
        ]),
      /superseded\[0\]\.by.*ring/u,
    ],
    ['a ref used twice', (sheet) => (sheet.parts[1]!.ref = sheet.parts[0]!.ref), /parts\[1\]\.ref.*used twice/u],
    ['a pattern of no fasteners', (sheet) => (sheet.joints[0]!.count = 0), /joints\[0\]\.count/u],
    ['a pattern of 400', (sheet) => (sheet.joints[0]!.count = 400), /joints\[0\]\.count/u],
    ['a tell in the wrong unit', (sheet) => (sheet.variants![0]!.tells[0]!.is = '5 kg'), /variants\[0\]\.tells\[0\]\.is.*is a mass/u],
    ['a sheet of no kind of unit', (sheet) => (sheet.family = ''), /family/u],
    ['a joint without its pattern', (sheet) => Reflect.deleteProperty(sheet.joints[0]!, 'pattern'), /joints\[0\]\.pattern is missing/u],
    ['a window upside down', (sheet) => (sheet.limits[0]!.service!.to = '1 mm'), /upside down/u],
  ])('%s', (_, change, words) => {
    const sheet = alternator();
    change(sheet);
    const result = readSheetFile(JSON.stringify(sheet));
    expect(result.ok ? '' : result.issues.map(({ path, message }) => `${path} ${message}`).join('\n')).toMatch(words);
  });

  test('a CSV of semicolons and decimal commas is read as its spreadsheet meant it', () => {
    const { joints } = alternator();
    const text = 'ref;torque.figure;pattern.passes\r\nthrough-bolts;7,5 N·m;"0,5; 1"\r\n';
    const result = readCsv(text, 'joints', joints);
    expect(result).toMatchObject({
      ok: true,
      lines: [{ ref: 'through-bolts', count: 4, torque: { figure: '7,5 N·m', page: '3-21' }, pattern: { passes: [0.5, 1] } }],
    });
  });

  test('a cell that would be run as a formula goes out as text, and comes back as it was', () => {
    const sheet = alternator();
    sheet.parts[0]!.note = '=HYPERLINK("x")';
    sheet.parts[1]!.note = "'=already";
    const csv = writeCsv(sheet, 'parts');
    expect(csv).toContain(`"'=HYPERLINK(""x"")"`);
    expect(csv).not.toMatch(/(^|,)"?[=+@]/mu);
    expect(readCsv(csv, 'parts', sheet.parts)).toEqual({ ok: true, lines: sheet.parts });
  });

  test.each([
    ['ref,colour\na,red', /is not a column of parts/u],
    ['name\nPulley', /no column "ref"/u],
    ['ref,quantity\npulley,many', /Pieces: "many" is not a whole number/u],
    ['ref,policy\npulley,maybe', /is not one of: renew, inspect, reuse/u],
  ])('CSV %j', (text, words) => {
    const result = readCsv(text, 'parts', []);
    expect(result.ok ? '' : result.issues.map(({ message }) => message).join('; ')).toMatch(words);
  });

  test('a paste of 5 000 lines is read whole', () => {
    const lines = Array.from({ length: 5000 }, (_, index) => `p-${index},Part ${index},${(index % 9) + 1},reuse`);
    const result = readCsv(['ref,name,quantity,policy', ...lines].join('\n'), 'parts', []);
    expect(result.ok && result.lines.length).toBe(5000);
  });
});

describe('every column of every list', () => {
  test.each(all)('%s: a cell written back as it reads changes nothing', (_, sheet) => {
    for (const [list, columns] of Object.entries(COLUMNS))
      for (const line of (sheet as unknown as Record<string, Record<string, unknown>[]>)[list] ?? [])
        for (const column of columns) expect(writeCell(line, column, readCell(line, column))).toEqual({ ok: true, line });
  });
});

test('what protects a seal may be emptied, and the seal stays one', () => {
  const column = COLUMNS.seals.find(({ path }) => path === 'protect')!;
  const write = (line: object) => writeCell(line as never, column, '');
  expect(write({ ref: 'seal', protect: ['No burr'] })).toEqual({ ok: true, line: { ref: 'seal', protect: [] } });
  expect(write({ ref: 'seal' })).toEqual({ ok: true, line: { ref: 'seal' } });
});

describe('two revisions', () => {
  test('are told apart in the trade’s words', () => {
    const [before, after] = [alternator(), alternator()];
    after.joints[0]!.torque!.figure = '7 N·m';
    after.parts = after.parts.filter(({ ref }) => ref !== 'spacer');
    const [first] = after.steps.splice(8, 1);
    after.steps.splice(12, 0, first!);
    expect(sheetDifferences(before, before)).toEqual([]);
    expect(sheetDifferences(before, after).map(({ say }) => say)).toEqual([
      'Spacer ring: gone from the parts',
      'Through bolts: torque 6.5 → 7 N·m',
      `${first!.title}: now after "${after.steps[11]!.title}"`,
    ]);
  });

  test('of two editors come together line by line, and what both changed is asked', () => {
    const base = alternator();
    const [mine, theirs] = [alternator(), alternator()];
    mine.joints[0]!.torque!.figure = '7 N·m';
    theirs.joints[1]!.torque!.figure = '90 N·m';
    theirs.parts.push({ ref: 'clip', name: 'Clip', quantity: 1, policy: 'reuse' });
    const merged = mergeSheets(base, mine, theirs);
    expect(merged.clashes).toEqual([]);
    expect(merged.file.joints.slice(0, 2).map(({ torque }) => torque?.figure)).toEqual(['7 N·m', '90 N·m']);
    expect(merged.file.parts.at(-1)?.ref).toBe('clip');
    theirs.joints[0]!.torque!.figure = '8 N·m';
    expect(mergeSheets(base, mine, theirs).clashes).toEqual([{ list: 'joints', ref: 'through-bolts', name: 'Through bolts' }]);
  });

  test('one of which is as it was give the other', () => {
    fc.assert(
      fc.property(fc.subarray(alternator().parts), fc.shuffledSubarray(alternator().steps, { minLength: 1 }), (parts, steps) => {
        const base = alternator();
        const changed = { ...alternator(), parts, steps };
        expect(mergeSheets(base, changed, base)).toEqual({ file: changed, clashes: [] });
        expect(mergeSheets(base, base, changed)).toEqual({ file: changed, clashes: [] });
      }),
      { numRuns: 40 },
    );
  });
});

describe('a job’s scope', () => {
  const tasks = all.flatMap(([name, sheet]) =>
    (sheet.tasks ?? []).filter(({ whole }) => !whole).map(({ ref }) => [name, ref, sheet] as const),
  );

  test('leaves the tasks that were not picked shut, with their parts', () => {
    const sheet = named('th6');
    const whole = scopeSheet(sheet, null);
    expect(whole.notOpened.map(({ name }) => name)).toEqual(['Brake disc and carrier', 'Steering joints']);
    expect(whole.file.parts.map(({ ref }) => ref)).not.toContain('disc');
    const brake = scopeSheet(sheet, { tasks: ['hub-service', 'brake-disc'] });
    expect(brake.file.steps.map(({ ref }) => ref)).toContain('disc-on');
    expect(brake.file.joints.map(({ ref }) => ref)).toContain('disc-screws');
    expect(brake.notOpened.map(({ ref }) => ref)).toEqual(['steering-joints']);
  });

  // What a unit has several of has refs of its own, which no sheet has: several.test.ts.
  test.each(tasks.filter(([, , sheet]) => !sheet.several))(
    '%s, %s only: is a sheet that the checker has nothing against',
    (_, task, sheet) => {
      const { file } = scopeSheet(sheet, { tasks: [task] });
      // A task may have nothing to measure, take nothing off, and be the same on every variant; a sheet may not.
      const allowed = /^(?:steps|parts|variants\[\d+\]\.differs)$/u;
      expect(reviewSheet(file).findings.filter(({ severity, path }) => severity !== 'note' && !allowed.test(path))).toEqual([]);
    },
  );

  test.each(all.filter(([, sheet]) => sheet.sides))('%s: two sides are two columns, and every pointer still points', (_, sheet) => {
    const { file } = scopeSheet(sheet, { tasks: (sheet.tasks ?? []).map(({ ref }) => ref), sides: sheet.sides! });
    expect(file.joints.length).toBe(sheet.joints.length * 2);
    const refs = (lines: readonly { ref: string }[]): Set<string> => new Set(lines.map(({ ref }) => ref));
    const known = {
      joint: refs(file.joints),
      setting: refs(file.settings),
      seal: refs(file.seals),
      limit: refs(file.limits),
      fluid: refs(file.fluids),
    };
    for (const step of file.steps) {
      for (const [field, list] of Object.entries(known)) {
        const ref = step.record[field as 'joint'];
        if (ref !== undefined) expect([...list]).toContain(ref);
      }
      for (const { part } of step.record.counts ?? []) expect([...refs(file.parts)]).toContain(part);
      if (step.opens) expect([...refs(file.steps)]).toContain(step.opens.closedBy);
    }
    expect(refs(file.steps).size).toBe(file.steps.length);
    expect(file.steps.filter(({ record }) => record.kind === 'sign')).toHaveLength(1);
    expect(withoutSide(file.joints[1]!.ref)).toBe(sheet.joints[1]!.ref);
  });
});

describe('what it may be, and what may be wrong with it', () => {
  test('a sheet begun from its family holds together, and trusts nothing', () => {
    const sheet = fromTemplate(alternator(), { key: 'quennet-x', make: 'Quennet', model: 'X', machine: 'hauler' });
    expect(readSheetFile(JSON.stringify(sheet)).ok).toBe(true);
    expect(JSON.stringify(sheet)).not.toMatch(/"trust":"(published|shop|calculated)"|QGA-/u);
    expect(reviewSheet(sheet).findings.every(({ severity }) => severity === 'note')).toBe(true);
  });

  test('every variant of a sheet is a candidate', () => {
    expect(candidatesOf([{ key: 'a', file: alternator() }]).map(({ name }) => name)).toEqual([
      'Quennet GA alternator, GA 130, 130 A',
      'Quennet GA alternator, GA 95, early',
      'Quennet GA alternator, GA 95, late',
    ]);
  });
});
