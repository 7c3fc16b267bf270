import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { output, refused } from '../working/run.test-kit.js';
import { workings } from '../workings.js';
import { deltaPhases } from './stator.js';

describe('alternator.rotor', () => {
  const sheet = { lower: 2.4, upper: 2.8 };

  /** IEC 60028: copper rises by 0.393 % of its resistance at 20 °C for each kelvin. */
  test('a winding of 2.6 Ω at 20 °C reads 2.6·(1 + 0.00393·60) Ω at 80 °C', () => {
    const found = output('alternator.rotor', { ...sheet, read: String(2.6 * (1 + 0.00393 * 60)), temperature: 80, meterU: 0.01 });
    expect(found['at20']).toBeCloseTo(2.6, 9);
    expect(found['current']).toBeCloseTo(13.5 / 2.6, 9);
    expect(found['verdict']).toBe('in');
  });

  test.each([
    [{ read: 'OL' }, 'out', 'Open'],
    [{ read: '0' }, 'out', 'Dead short'],
    [{ read: '1.6 Ω' }, 'out', 'Shorted turns'],
    [{ read: '3.4 Ω' }, 'out', 'Too much'],
    [{ read: '2.79 Ω' }, 'unsure', 'four wires'],
    [{ read: '2.6 Ω', earth: '200 kΩ' }, 'out', 'Earthed: 200 kΩ'],
    [{ read: '2.6 Ω', earth: '5 MΩ' }, 'in', 'as it should be'],
  ])('%j is %s', (readings, verdict, words) => {
    const found = output('alternator.rotor', { ...sheet, ...readings });
    expect(found['verdict']).toBe(verdict);
    expect(found['what']).toContain(words);
  });

  test('leads that read more than the whole, and a word, are refused', () => {
    expect(refused('alternator.rotor', { ...sheet, read: '0.1', leads: 0.3 })).toContain('less than its leads');
    expect(refused('alternator.rotor', { ...sheet, read: 'some' })).toContain('or OL for open');
  });
});

describe('alternator.stator', () => {
  test('star and delta turn into each other', () => {
    fc.assert(
      fc.property(fc.tuple(...[1, 2, 3].map(() => fc.double({ min: 0.05, max: 2, noNaN: true }))), ([p12, p23, p31]) => {
        const pair = (own: number, ...others: number[]): number => 1 / (1 / own + 1 / (others[0]! + others[1]!));
        const read = [pair(p12!, p23!, p31!), pair(p23!, p12!, p31!), pair(p31!, p12!, p23!)] as const;
        deltaPhases(...read).forEach((phase, index) => expect(phase).toBeCloseTo([p12!, p23!, p31!][index]!, 9));
      }),
    );
  });

  test('an ordinary meter cannot judge 0.1 Ω; four wires can', () => {
    const pairs = { pair12: '102 mΩ', pair23: '101 mΩ', pair31: '102 mΩ' };
    expect(output('alternator.stator', { ...pairs, how: 'two-wire' })['verdict']).toBe('unsure');
    expect(output('alternator.stator', pairs)['verdict']).toBe('in');
  });

  test('the bad phase and the open lead are named', () => {
    // Phases 0.05, 0.05, 0.03 in star.
    expect(output('alternator.stator', { pair12: '100 mΩ', pair23: '80 mΩ', pair31: '80 mΩ' })).toMatchObject({
      verdict: 'out',
      bad: 'phase 3',
    });
    expect(output('alternator.stator', { pair12: 'OL', pair23: '100 mΩ', pair31: 'OL' })['bad']).toBe('lead 1');
    expect(output('alternator.stator', { pair12: '0', pair23: '0', pair31: '0' })['what']).toContain('all shorted');
  });

  test('equal current: drops over current are the same winding', () => {
    const drops = output('alternator.stator', { how: 'drop', current: 10, pair12: '1.02 V', pair23: '1.01 V', pair31: '1.02 V' });
    expect(drops['phase']).toBeCloseTo(0.0508, 4);
    expect(drops['verdict']).toBe('in');
  });
});

describe('alternator.diodes', () => {
  const all = (change: object): object => ({
    readings: ['+1', '+2', '+3', '−1', '−2', '−3'].map((diode, index) => ({
      diode,
      forward: '0.52 V',
      reverse: 'OL',
      ...(index === 4 ? change : {}),
    })),
  });

  test.each([
    [{}, 'in', 'none'],
    [{ forward: '0.002 V', reverse: '0.002 V' }, 'out', '−2 shorted'],
    [{ forward: 'OL' }, 'out', '−2 open'],
    [{ reverse: '1.8 V' }, 'out', '−2 leaks'],
    [{ forward: '0.61' }, 'out', '−2 odd'],
    [{ forward: '0.57' }, 'unsure', 'none'],
    [{ forward: '520 mV' }, 'in', 'none'],
  ])('one with %j: %s, %s', (change, verdict, bad) => {
    expect(output('alternator.diodes', all(change))).toMatchObject({ verdict, bad });
  });

  test('a reading that is none is named by row and side', () => {
    expect(refused('alternator.diodes', all({ reverse: '3 Ω' }))).toContain('row 5, reverse');
  });
});

describe('alternator.output', () => {
  const { example } = workings.describe('alternator.output')!;

  /** ISO 8854 (from memory): 13.5 V or 27 V, 1500 and 6000 rpm. */
  test('a lost phase is short by a third and ripples; another voltage is no such test', () => {
    expect(output('alternator.output', example)['verdict']).toBe('in');
    const lost = output('alternator.output', { ...example, ratedCurrent: 58, ripple: 1.4 });
    expect(lost).toMatchObject({ verdict: 'out' });
    expect(lost['what']).toContain('a diode or a phase');
    expect(refused('alternator.output', { ...example, testVoltage: 14.4 })).toContain('13.5 V ± 2 %');
  });

  test('the regulator follows its slope', () => {
    expect(output('alternator.output', { ...example, airAt: 63 })['expected']).toBeCloseTo(14.4 - 0.003 * 40, 9);
  });
});

describe('brushes, pulley, cable', () => {
  test('hours left in proportion', () => {
    const found = output('alternator.brushes', { lengths: [8.2], fresh: 14, limit: 5, hours: '5200 h' });
    expect(Number(found['hoursLeft']) / 3600).toBeCloseTo((5200 * 3.2) / 5.8, 6);
    expect(refused('alternator.brushes', { lengths: [8], fresh: 5, limit: 5 })).toContain('size when new');
  });

  test('a pulley too small runs too fast, and what would suit is said', () => {
    const found = output('alternator.pulley', { crank: 150, own: 40, idle: 750, top: 5000, most: 18_000 });
    expect(found).toMatchObject({ verdict: 'out', fits: '41.667 mm to 75 mm' });
  });

  /** IEC 60028: 1 m of 1 mm² annealed copper is 1/58 Ω at 20 °C. */
  test('58 m of 1 mm² at 20 °C is 1 Ω one way, 2 Ω there and back', () => {
    const cable = { length: '58 m', section: 1, current: 0.1, temperature: 20 };
    expect(output('wire.drop', cable)['lost']).toBeCloseTo(0.1, 9);
    expect(output('wire.drop', { ...cable, back: 'cable' })['lost']).toBeCloseTo(0.2, 9);
  });

  test('the size it names does, the one below does not', () => {
    const at = (section: number): unknown => output('wire.drop', { length: '3 m', section, current: 90 })['verdict'];
    expect(output('wire.drop', { length: '3 m', section: 1, current: 90 })['size']).toBe('25 mm²');
    expect([at(16), at(25)]).toEqual(['out', 'in']);
  });
});

describe('what a meter shows', () => {
  test('the field current as it is and at 20 °C, by the copper’s rise between (IEC 60028)', () => {
    const { current, currentNow } = output('alternator.rotor', { read: '3 Ω', temperature: 60, lower: 2.4, upper: 2.8 }) as Record<
      string,
      number
    >;
    expect(currentNow).toBeCloseTo(13.5 / 3, 9);
    expect(current! / currentNow!).toBeCloseTo(1 + 0.00393 * 40, 9);
  });

  test('a meter that shows millivolts: 520 is 0.52 V', () => {
    const readings = ['+1', '+2', '−1'].map((diode) => ({ diode, forward: '520', reverse: 'OL' }));
    expect(output('alternator.diodes', { readings })).toMatchObject({ verdict: 'in', bad: 'none' });
    const drop = { how: 'drop', current: 10, pair12: '1020', pair23: '1.01', pair31: '1.02' };
    expect(refused('alternator.stator', drop)).toContain('"1020" has no unit');
    expect(output('alternator.stator', { ...drop, pair12: '1020 mV' })['verdict']).toBe('in');
  });

  /** Series of three phases: no pair reads more than the other two together. */
  test('readings that no star and no delta can have are refused', () => {
    for (const wound of ['star', 'delta'])
      expect(refused('alternator.stator', { pair12: '0.1', pair23: '0.1', pair31: '0.35', wound })).toContain(
        'which no star or delta does',
      );
    expect(output('alternator.stator', { pair12: '0.05', pair23: '0.1', pair31: '0.05' })['verdict']).toBe('out');
  });

  test('the regulator is judged with the whole uncertainty of the stand', () => {
    const { example } = workings.describe('alternator.output')!;
    // 0.2 V inside its window of 0.3 V: sure by a stand of 0.5 %, not by one of 1 %.
    const near = { ...example, regulated: 14.364 - 0.12, nominal: 14.4, ripple: undefined };
    expect(output('alternator.output', { ...near, meterU: 0.005 })['verdict']).toBe('in');
    expect(output('alternator.output', { ...near, meterU: 0.01 })['verdict']).toBe('unsure');
  });
});
