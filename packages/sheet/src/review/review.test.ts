import { sheetDifferences } from '../editing/differences.js';
import { newLine } from '../lines/new-line.js';
import { emptySheet } from '../editing/template.js';
import { alternator, named } from '../library.test-kit.js';
import { sealsAttacked } from '../model/coat-attacks.js';
import type { SheetFile } from '../model/file.js';
import { LIST_NAMES, SHEET_LISTS } from '../model/lists.js';
import { readSheetFile } from '../reading/read.js';
import { oneOf, randomFrom, spoilt } from '../spoilt.test-kit.js';
import type { Tool } from '../tool.js';
import { reviewSheet } from './review.js';
import { describe, expect, test } from '@jest/globals';

const LIBRARY = ['alternator', 'd44', 't4-turbo', 'gx5'];

describe('a coat', () => {
  const { steps } = named('steered-end');
  const said = (otherwise: (step: SheetFile['steps'][number]) => void): readonly string[] => {
    const sheet = named('steered-end');
    otherwise(sheet.steps.find(({ ref }) => ref === 'colour-on')!);
    return reviewSheet(sheet)
      .findings.map(({ severity, say }) => `${severity}: ${say}`)
      .filter((words) => words.includes('Colour on'));
  };

  test('dries for as long as the sheet says, and stands alone', () => {
    expect(steps.filter(({ coat }) => coat).map(({ ref }) => ref)).toEqual(['primed', 'colour-on']);
    expect(said(() => undefined)).toEqual([]);
    expect(said((step) => delete step.wait)).toContain('stop: "Colour on" is wet, and nothing says how long');
    expect(said((step) => (step.record = { kind: 'reading', limit: 'toe' }))).toContain(
      'stop: "Colour on" puts a coat on and records something else',
    );
  });

  // Nitrile swells in ketones and esters and bears white spirit; nothing bears everything but PTFE (solvent groups of rubber makers' tables).
  test.each([
    ['nitro or two-pack thinner', ['wiper', 'inner', 'hub']],
    ['xylene', ['wiper', 'inner', 'hub']],
    ['white spirit', []],
    ['water', []],
  ] as const)('thinned with %s', (thinned, attacked) => {
    const found = said(({ coat }) => Object.assign(coat!, { thinned, masked: ['disc'] }));
    expect(found).toHaveLength(attacked.length);
    for (const name of attacked)
      expect(found).toContainEqual(
        expect.stringMatching(new RegExp(`^care: "Colour on": ${thinned} attacks the NBR of the .*${name}`, 'u')),
      );
  });

  test.each([
    ['AEM', 1],
    ['PTFE', 0],
    ['fibre', 0],
  ])('what nobody knows is never fit: %s', (material, count) => {
    const sheet = named('steered-end');
    for (const seal of sheet.seals) seal.material = seal.ref === 'inner-seal' ? material : 'paper';
    const colour = sheet.steps.find(({ ref }) => ref === 'colour-on')!;
    expect(sealsAttacked(sheet, colour)).toHaveLength(count);
  });

  test('bothers no seal that goes in after it', () => {
    expect(sealsAttacked(named('steered-end'), { ...steps[0]!, coat: { what: 'x', thinned: 'xylene', masked: [] } })).toEqual([]);
  });
});

describe('the checker', () => {
  test.each<[string, string, (sheet: SheetFile) => void, RegExp]>([
    ['a joint without a torque', 'alternator', (sheet) => delete sheet.joints[0]!.torque, /stop: Through bolts have no torque/u],
    [
      'a torque over what the thread takes',
      'alternator',
      (sheet) => (sheet.joints[0]!.torque!.figure = '65 N·m'),
      /stop: .*over what M6 of class 8.8 takes/u,
    ],
    ['counts against parts', 'alternator', (sheet) => (sheet.joints[0]!.count = 5), /stop: .*5 in the joint, 4 among the parts/u],
    ['an odd count in two rows', 'air-compressor', (sheet) => (sheet.joints[0]!.count = 5), /stop: .*two even rows/u],
    [
      'lengths that do not add up',
      'gearbox',
      (sheet) => (sheet.joints[0]!.lengths![0]!.count = 8),
      /stop: .*the lengths count 30, the joint 26/u,
    ],
    [
      'a joint whose thread is none',
      'alternator',
      (sheet) => (sheet.joints[0]!.thread = 'M6 fine'),
      /care: Through bolts: "M6 fine" names no thread/u,
    ],
    [
      'a grid with rows that are not full',
      'gearbox',
      (sheet) => Object.assign(sheet.joints[0]!.pattern, { layout: 'grid', columns: 5 }),
      /stop: .*26 do not stand in full rows of 5/u,
    ],
    [
      'new screws whose part goes back',
      'propeller',
      (sheet) => (sheet.parts.find(({ ref }) => ref === sheet.joints.find(({ renewEachTime }) => renewEachTime)!.part)!.policy = 'reuse'),
      /care: .* are new each time, their part is not/u,
    ],
    [
      'a step to come after one that stands behind it',
      'd44',
      (sheet) => (sheet.steps.find(({ ref }) => ref === 'cups-in')!.after = ['cover-on']),
      /stop: "Cup of the head bearing in" is to come after a step that stands behind it/u,
    ],
    [
      'an open end that an earlier step closes',
      'd44',
      (sheet) => (sheet.steps.find(({ opens }) => opens)!.opens!.closedBy = sheet.steps[0]!.ref),
      /stop: ".*" opens what an earlier step closes/u,
    ],
    [
      'a caution that ends before it begins',
      'd44',
      (sheet) => {
        const caution = sheet.cautions.find(({ holds }) => holds)!;
        caution.holds = { from: caution.holds!.until, until: caution.holds!.from };
      },
      /stop: A caution ends before it begins/u,
    ],
    [
      'a setting that new bearings make necessary, and nobody says so',
      'd44',
      (sheet) => (sheet.obligations = sheet.obligations!.filter(({ closedBy }) => closedBy !== 'backlash-set')),
      /care: Backlash, at four places: new bearings make it necessary/u,
    ],
    [
      'a step that needs what nothing took off',
      'alternator',
      (sheet) => (sheet.steps[7]!.needsOff = ['rotor']),
      /stop: .*needs the rotor with slip rings off/u,
    ],
    [
      'a press with no caution',
      'alternator',
      (sheet) => delete sheet.steps.find(({ ref }) => ref === 'rear-bearing-on')!.cautions,
      /stop: "Rear bearing on": it is pressed/u,
    ],
    [
      'heat with no caution',
      'alternator',
      (sheet) => delete sheet.steps.find(({ ref }) => ref === 'front-bearing-in')!.cautions,
      /stop: "Front bearing in": it is heated/u,
    ],
    [
      'something heavy with no caution',
      'd44',
      (sheet) => delete sheet.steps.find(({ ref }) => ref === 'carrier-out')!.cautions,
      /stop: "Carrier out": something heavy/u,
    ],
    [
      'licensed work that is not said',
      'refrigerant',
      (sheet) => sheet.cautions.forEach((caution) => delete caution.licensed),
      /stop: Work on refrigerant is licensed/u,
    ],
    [
      'renewed and in no kit',
      'alternator',
      (sheet) => sheet.kits![0]!.parts.splice(0, 1),
      /care: Front bearing: renewed every time, and in no kit/u,
    ],
    [
      'a setting that nothing proves',
      'd44',
      (sheet) => sheet.steps.forEach((step) => step.record.kind === 'proof' && (step.record = { kind: 'tick' })),
      /stop: Side bearing spread: no step proves it/u,
    ],
    [
      'hydraulics opened and never bled',
      'steering',
      (sheet) =>
        Object.assign(
          sheet.steps.find(({ ref }) => ref === 'bled')!,
          { title: 'Rods moved', act: 'Lock to lock ten times.' },
        ),
      /stop: "Unions off" opens the hydraulics, and no later step bleeds them/u,
    ],
    [
      'drained and never filled',
      'gearbox',
      (sheet) => sheet.steps.forEach((step) => step.record.kind === 'fluid' && (step.record = { kind: 'tick' })),
      /stop: "Oil out" drains it, and no later step fills it/u,
    ],
    ['a new one that would be out', 'alternator', (sheet) => (sheet.limits[0]!.asNew!.to = '14 mm'), /stop: .*a new one would be out/u],
    [
      'two variants that nothing tells apart',
      'alternator',
      (sheet) => (sheet.variants![2]!.tells = sheet.variants![1]!.tells),
      /stop: .*cannot be told apart/u,
    ],
    [
      'a left-hand thread that no step says',
      't4-turbo',
      (sheet) => sheet.steps.forEach((step) => (step.act = step.act.replace(/left-hand/giu, 'odd'))),
      /care: .*left-hand thread, and no step says so/u,
    ],
    [
      'a left-hand thread that is said to turn right',
      'alternator',
      (sheet) => (sheet.joints[0]!.thread = 'M12 x 1.25 - LH'),
      /stop: .*M12 x 1.25 - LH is a left-hand thread, the joint is said to turn right/u,
    ],
    [
      'a pin through the spindle and an odd number of slots',
      'd44',
      (sheet) => {
        const seat = sheet.joints.find(({ torque }) => torque)!.torque!;
        sheet.settings[0]!.nut = { thread: 'M24 x 1', pitch: '1 mm', slots: 7, openings: [0, 180], seat, backOff: '30°' };
      },
      /stop: .*a pin right through the spindle finds no slot opposite among 7/u,
    ],
    [
      'ways with none of the shop’s',
      'alternator',
      (sheet) => delete sheet.steps.find(({ ways }) => ways)!.ways![0]!.shopDefault,
      /care: .*none is the shop/u,
    ],
    [
      'a number that is superseded',
      'alternator',
      (sheet) => (sheet.parts[5]!.number = 'QGA-108'),
      /care: Front bearing: QGA-108 is superseded by QGA-111/u,
    ],
    [
      'a value that is somebody’s word',
      'alternator',
      (sheet) => (sheet.joints[0]!.torque!.trust = 'unverified'),
      /note: Through bolts: a value is only somebody’s word/u,
    ],
    [
      'a rubber that its fluid takes apart',
      'brake-cylinder',
      (sheet) => (sheet.seals[0]!.material = 'NBR'),
      /stop: .*NBR in glycol brake fluid: no/u,
    ],
    [
      'a rubber of which nobody knows how it takes its fluid',
      'propeller',
      (sheet) => Object.assign(sheet.seals[0]!, { material: 'leather', medium: 'synthetic-oil' }),
      /care: Dust boot.*leather in synthetic oil/u,
    ],
    [
      'a step of another stage in between',
      'alternator',
      (sheet) => (sheet.steps[10]!.stage = 'prove'),
      /stop: .*stands after a step of Prove/u,
    ],
    [
      'nobody signs',
      'alternator',
      (sheet) => (sheet.steps = sheet.steps.filter(({ record }) => record.kind !== 'sign')),
      /stop: No step has the foreman sign/u,
    ],
  ])('finds %s', (_, name, change, words) => {
    const sheet = named(name);
    change(sheet);
    const { findings } = reviewSheet(sheet);
    expect(findings.map(({ severity, say }) => `${severity}: ${say}`).join('\n')).toMatch(words);
    for (const finding of findings) expect(finding.mend).not.toBe('');
  });

  test('a draft that holds anything anywhere is read, checked and compared, and never falls over', () => {
    const random = randomFrom(20_261_128);
    const whole = LIBRARY.map((name) => named(name));
    for (let draft = 0; draft < 100; draft += 1) {
      const plain = spoilt(spoilt(oneOf(random, whole), random), random);
      if (typeof plain !== 'object' || plain === null) continue;
      const file = plain as SheetFile;
      expect(() => {
        readSheetFile(JSON.stringify(file));
        reviewSheet(file);
        sheetDifferences(oneOf(random, whole), file);
        sheetDifferences(file, oneOf(random, whole));
      }).not.toThrow();
    }
  });

  test('a draft that does not hold together is read all the same, with the place to mend', () => {
    const sheet = alternator();
    delete (sheet.joints[2] as { thread?: string }).thread;
    const { findings } = reviewSheet(sheet);
    expect(findings[0]).toMatchObject({ severity: 'stop', list: 'joints', ref: 'retainer-screws', path: 'joints[2].thread' });
  });
});

describe('the crib', () => {
  const indicator = (u: number): Tool =>
    ({
      id: 'd',
      tag: 'D1',
      name: 'Dial',
      kind: 'dial-indicator',
      quantity: 'length',
      unit: 'mm',
      low: 0,
      high: 10,
      resolution: 0.01,
      u,
      s: 0,
    }) as Tool;
  const setting = named('d44').settings.find(({ tool }) => tool === 'dial-indicator')!;
  const said = (u: number): string[] =>
    reviewSheet(named('d44'), [indicator(u)])
      .findings.filter(({ list, ref }) => list === 'settings' && ref === setting.ref)
      .map(({ severity, say }) => `${severity}: ${say}`);

  test('is told while the sheet is written when no tool of it can judge a window, and only then', () => {
    // ISO 14253-1 with both limits leaves no acceptance zone under a tolerance of about 3.9 u: 0.07 mm needs u under 18 µm.
    expect(setting.window).toMatchObject({ from: '0.13 mm', to: '0.2 mm' });
    expect(said(0.017)).toEqual([]);
    expect(said(0.019)).toEqual([expect.stringMatching(/^care: Backlash.*no dial-indicator in the crib is fine enough: D1/u)]);
  });

  test('a kind that it has not is named; of no crib nothing is said', () => {
    expect(reviewSheet(named('d44'), [indicator(0.001)]).findings.map(({ say }) => say)).toContainEqual(
      expect.stringMatching(/no feeler-gauge in the crib reads a length/u),
    );
    expect(reviewSheet(named('d44')).findings).toEqual([]);
  });
});

describe('a draft that does not hold together yet', () => {
  const draft = (change: (sheet: Record<string, unknown[]>) => void): string[] => {
    const sheet = structuredClone(alternator()) as unknown as Record<string, unknown[]>;
    change(sheet);
    return reviewSheet(sheet).findings.map(({ severity, say }) => `${severity}: ${say}`);
  };

  test('a line that was just begun, in any list, is named by its table, line and column, with all the rest at once', () => {
    for (const list of SHEET_LISTS) {
      const said = draft((sheet) => (sheet[list] = [...(sheet[list] ?? []), { ref: 'begun', ...newLine(list) }]));
      expect(said.length).toBeGreaterThan(0);
      expect(said.filter((words) => /undefined|must be a string|conforming|\[\d/u.test(words))).toEqual([]);
      expect(said.join('\n')).toContain(`${LIST_NAMES[list]}, line ${(alternator()[list] ?? []).length + 1} “begun”`);
    }
  });

  test('what is wrong by itself does not hide what is wrong with the rest', () => {
    const said = draft((sheet) => {
      (sheet['joints']![0] as { torque: { figure: string } }).torque.figure = '7 apples';
      (sheet['joints']![1] as { count: unknown }).count = 'many';
      (sheet['steps']![0] as { cautions: string[] }).cautions = ['nowhere'];
      sheet['parts']!.push({ ref: 'spare', ...newLine('parts') });
      sheet['limits']!.push({ ref: 'unused', ...(alternator().limits[0] as object), name: 'Not come to' });
      (sheet['limits']!.at(-1) as { ref: string }).ref = 'unused';
    });
    expect(said).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/^stop: Joints, line 1 “.*”, Torque “7 apples”: "apples" is not a unit of torque/u),
        expect.stringMatching(/^stop: Joints, line 2 “.*”, Count “many”: must be a whole number/u),
        expect.stringMatching(/^stop: Steps, line 1 “.*”, Care: refers to a caution "nowhere"/u),
        expect.stringMatching(/^stop: Parts, line \d+ “spare”, Name: is missing/u),
        expect.stringMatching(/Not come to/u),
      ]),
    );
  });

  test('rows of any rubbish never throw it off', () => {
    const rubbish = [null, 7, 'words', [], {}, { ref: 'x', record: 3, pattern: 'round', torque: [], looks: {} }];
    for (const list of SHEET_LISTS) expect(() => draft((sheet) => (sheet[list] = rubbish))).not.toThrow();
    // Each by itself too, lest one hides what another does: in a sheet that is quickly read.
    const begun = emptySheet({ key: 'ostrel-w1', make: 'Ostrel', model: 'W 1', machine: 'Winch' }, 'winch drum brake');
    for (const one of rubbish)
      for (const list of SHEET_LISTS) expect(() => reviewSheet({ ...structuredClone(begun), [list]: [one] })).not.toThrow();
    for (const list of SHEET_LISTS) expect(() => draft((sheet) => Object.assign(sheet, { [list]: 'none' }))).not.toThrow();
  });

  test('never stands as short of nothing', () => {
    const sheet = structuredClone(alternator());
    sheet.steps.push({ ref: 'begun', ...newLine('steps') } as never);
    const { complete } = reviewSheet(sheet);
    expect(complete.filter(({ have, of }) => have < of).map(({ name }) => name)).toContain('lines with nothing to mend first');
  });

  test('one of a kind of its own begins with the stages of any rebuild, and is about the unit until its parts are known', () => {
    const sheet = emptySheet({ key: 'ostrel-w1', make: 'Ostrel', model: 'W 1', machine: 'Winch' }, 'winch drum brake');
    expect(reviewSheet(sheet).findings).toEqual([]);
    expect(sheet.parts.map(({ name }) => name)).toEqual(['Ostrel W 1']);
    sheet.parts = [{ ref: 'band', name: 'Band', quantity: 1, policy: 'inspect' }];
    expect(reviewSheet(sheet).findings).toEqual([]);
  });
});
