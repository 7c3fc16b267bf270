import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { workings } from './index.js';
import { output } from './working/run.test-kit.js';

type Expected = Readonly<Record<string, unknown>>;

const about = (figure: number, digits: number): unknown => expect.closeTo(figure, digits);
const has = (words: string): unknown => expect.stringContaining(words);
const example = (id: string): object => workings.describe(id)!.example;

/** The example of each working's doc block: what goes in, and what the words say comes out, to the digits they have. */
const EXAMPLES: Readonly<Record<string, readonly [input: object, expected: Expected]>> = {
  'alternator.brushes': [
    { lengths: [8.2], fresh: 14, limit: 5, hours: '5200 h' },
    { used: about(0.644, 3), hoursLeft: about(2868 * 3600, -4) },
  ],
  'alternator.diodes': [example('alternator.diodes'), { bad: '−2 shorted', verdict: 'out' }],
  'alternator.output': [example('alternator.output'), { verdict: 'in' }],
  'alternator.pulley': [example('alternator.pulley'), { ratio: about(2.73, 2), atIdle: about(2045, 0), atTop: about(13_636, 0) }],
  'alternator.rotor': [example('alternator.rotor'), { at20: about(2.615, 3), currentNow: about(4.82, 2), current: about(5.16, 2) }],
  'alternator.stator': [
    { pair12: '0.102', pair23: '0.101', pair31: '0.102' },
    { verdict: 'in', what: has('alike') },
  ],
  'bearing.balls': [
    { ball: 6.35, circle: 26 },
    { full: 12, working: 11 },
  ],
  'bearing.clearance': [example('bearing.clearance'), { group: 'C3', least: about(0.003, 3), most: about(0.018, 3) }],
  'bearing.cone-and-locknut': [
    { playNow: 0.12, from: 0.01, to: 0.03, pitch: 1, setBefore: 0.12, lockedAfter: 0.05, clamped: 0.02 },
    { riding: about(0.02, 9), turn: about(0, 9), verdict: 'in' },
  ],
  'bearing.crush-sleeve': [
    { readings: [{ angle: 30, torque: 0.4 }, { angle: 40, torque: 0.8 }], from: 1.2, to: 1.8 }, // prettier-ignore
    { state: 'on', step: about(12.5, 9) },
  ],
  'bearing.identify': [example('bearing.identify'), { name: has('6204') }],
  'bearing.life': [example('bearing.life'), { hours: about(4577 * 3600, -4) }],
  'bearing.noise': [example('bearing.noise'), { outer: about(3.5848, 3), inner: about(5.4152, 3), cage: about(0.3983, 3) }],
  'bearing.nut': [example('bearing.nut'), { angle: 30, play: about(0.085, 9) }],
  'bearing.rolling-torque': [example('bearing.rolling-torque'), { torque: about(1.14, 2) }],
  'bearing.shim': [example('bearing.shim'), { wanted: about(1.085, 9), pack: '1 + 0.1 mm' }],
  'bearing.thermal': [
    { setting: 0.15, k1: 1.5, d1: 60, apart: 180, shaftT: 40, housingT: 20, housingOf: 'steel' },
    { loses: about(0.0945, 4), hot: about(0.0555, 4) },
  ],
  'clutch.capacity': [example('clutch.capacity'), { springShare: about(0.84, 2) }],
  'clutch.pack': [example('clutch.pack'), { plate: 3.4, clearance: about(1.7, 9) }],
  'compressor.air-gap': [example('compressor.air-gap'), { wanted: about(0.78, 9), pack: '0.5 + 0.3 mm' }],
  'estimate.time': [example('estimate.time'), { half: about(2.35 * 3600, -1), fourFifths: about(3.15 * 3600, -1) }],
  'decide.repair': [example('decide.repair'), { best: 'as planned' }],
  'fit.heat': [{ seat: 40, interference: 0.015, gap: 0.02 }, { temperature: about(96, 0) }],
  'fit.limits': [
    example('fit.limits'),
    { holeLeast: 50, holeMost: about(50.025, 9), shaftLeast: about(50.002, 9), shaftMost: about(50.018, 9) },
  ],
  'fit.measured': [example('fit.measured'), { interference: about(0.015, 9) }],
  'fit.press': [example('fit.press'), { force: about(11_700, -2) }],
  'fit.off': [example('fit.off'), { force: about(37_000, -3), which: 'tube 31 × 40' }],
  'press.sleeve': [example('press.sleeve'), { insideLeast: 20.5, outsideMost: about(26.75, 9) }],
  'oring.check': [example('oring.check'), { verdict: 'in', stretch: about(0.04, 9), squeeze: about(0.184, 3) }],
  'oring.drag': [example('oring.drag'), { load: about(67, 0), runningMost: about(13, 0), restMost: about(40, 0), verdict: 'in' }],
  'gasket.compress': [example('gasket.compress'), { verdict: 'in', stress: about(25.7, 1), seats: 25.5 }],
  'oring.extrusion': [example('oring.extrusion'), { verdict: 'out', gap: about(0.06, 9), gapMost: 0, so: has('back-up ring') }],
  'gasket.make': [example('gasket.make'), { wide: about(104, 9), high: about(84, 9), narrowest: about(7.55, 9), punch: about(8.9, 9) }],
  'seal.chevron': [example('seal.chevron'), { verdict: 'in', pressed: about(0.0366, 4), cut: about(163.27, 1), gap: about(1.65, 2) }],
  'seal.shelf-life': [example('seal.shelf-life'), { verdict: 'unsure', group: 'B', until: 7 }],
  'seal.light-bands': [example('seal.light-bands'), { verdict: 'in', flatness: about(0.0005876, 7), allowed: about(0.0008814, 7) }],
  'oring.cord': [example('oring.cord'), { cut: about(758.95, 1) }],
  'seal.press': [example('seal.press'), { verdict: 'in', interference: about(0.14, 9), driver: about(61.51, 9), force: about(1508, 0) }],
  'seal.size': [example('seal.size'), { which: has('35 × 52') }],
  'oring.no-groove': [example('oring.no-groove'), { verdict: 'in', stretch: about(0.03, 9) }],
  'oring.pick': [example('oring.pick'), { which: has('20 × 2.65') }],
  'ring.retaining': [example('ring.retaining'), { which: has('20 × 1.2'), grooveAt: 19, holds: about(5105, 0) }],
  'seal.face-compression': [example('seal.face-compression'), { compression: 21 }],
  'seal.lip': [example('seal.lip'), { verdict: 'in', surface: about(6.28, 2) }],
  'seal.material': [example('seal.material'), { rating: 'no', why: has('jelly'), better: has('NBR') }],
  'seal.sealant': [example('seal.sealant'), { volume: about(0.00195, 5), needed: about(0.00224, 5), slack: about(264, 9) }],
  'seal.wear-track': [example('seal.wear-track'), { do: 'inset', inset: about(1.7, 9) }],
  'gearbox.snap-ring': [example('gearbox.snap-ring'), { ring: 2.3 }],
  'gear.backlash': [
    { readings: [0.3], from: 0.13, to: 0.17, teethSide: 2, otherSide: 2, before: 0.37, moved: 0.1 },
    { k: about(0.7, 9), shift: about(0.214, 3) },
  ],
  'gear.contact': [example('gear.contact'), { verdict: 'out', pinion: about(0.1, 9), what: has('too far out: deeper') }],
  'gear.pinion-depth': [{ shim: 1.2, oldMark: '+2', newMark: '-1', marksIn: 'hundredths' }, { newShim: about(1.23, 9) }],
  'gear.ratio': [example('gear.ratio'), { ratio: about(3.545, 3), hunting: 'hunting' }],
  'identify.variant': [
    { ...example('identify.variant'), found: [{ feature: 'case length', is: '152 mm', u: '0.5 mm' }] },
    { variant: 'larger' },
  ],
  'measure.at-20': [example('measure.at-20'), { size: about(99.958, 3) }],
  'measure.bore': [example('measure.bore'), { outOfRound: about(0.008, 9), taper: about(0.01, 9) }],
  'measure.flatness': [
    { points: [[0, 0, 0], [50, 0, 0.1], [50, 50, 0], [0, 50, 0.1]].map(([x, y, z]) => ({ x, y, z })) }, // prettier-ignore
    { flatness: about(0.1, 9) },
  ],
  'measure.gauge-rr': [example('measure.gauge-rr'), { standing: 'good' }],
  'measure.runout': [
    { readings: Array.from({ length: 12 }, (_, at) => 0.05 * Math.cos(((30 * at - 90) * Math.PI) / 180)) },
    { tir: about(0.1, 9), highAt: about(90, 9) },
  ],
  'tool.check': [{ points: [{ set: 100, true: 98 }] }, { worst: about(0.0204, 4), verdict: 'in' }],
  'measure.verdict': [example('measure.verdict'), { verdict: 'in', mean: about(50.012, 9) }],
  'quality.weibull': [example('quality.weibull'), { shape: about(1.72, 1), scale: about(607, -1) }],
  'quality.xmr': [example('quality.xmr'), { mean: about(50.81, 2), upper: about(55.8, 1), lower: about(45.82, 1) }],
  'driveline.angles': [
    { shafts: [['a', 3], ['b', 6], ['c', 3]].map(([shaft, down]) => ({ shaft, down, left: 0 })) }, // prettier-ignore
    { left: about(0, 6), verdict: 'in' },
  ],
  'shaft.end-play-shim': [example('shaft.end-play-shim'), { washer: 2.25 }],
  'spring.check': [
    { springs: Array.from({ length: 5 }, () => ({ free: 38, load: 212, lean: 0 })), setLength: 26 },
    { each: expect.arrayContaining([expect.objectContaining({ rate: about(0.0177, 4) })]) },
  ],
  'thread.areas': [example('thread.areas'), { stressArea: about(92.1, 1) }],
  'thread.identify': [
    example('thread.identify'),
    { thread: 'M12x1.25', candidates: expect.arrayContaining([expect.objectContaining({ hex: '18 or 19' })]) },
  ],
  'torque.adapter': [example('torque.adapter'), { setting: about(97.66, 2) }],
  'torque.angle': [example('torque.angle'), { clamp: about(48_300, -2), state: 'yield' }],
  'torque.batch': [
    {
      from: 22,
      to: 26,
      pulls: Array.from({ length: 8 }, (_, at) => ({ screw: String(at + 1), torque: 24, angle: at === 7 ? 22 : 60 })),
    },
    { wrong: 1, each: expect.arrayContaining([expect.objectContaining({ screw: '8', why: has('stopped early') })]) },
  ],
  'torque.breakaway': [example('torque.breakaway'), { verdict: 'out', short: about(9 * 1.3558, 3) }],
  'torque.no-spec': [example('torque.no-spec'), { aim: about(8.6, 1), high: about(8.9, 1) }],
  'torque.pattern': [{ count: 10, torque: 100 }, { pulls: 40 }],
  'torque.preload': [example('torque.preload'), { force: about(18_200, -3), least: about(14_600, -3), most: about(21_900, -3) }],
  'torque.prevailing': [example('torque.prevailing'), { setting: 64.5 }],
  'bolt.stretch': [example('bolt.stretch'), { force: about(34_550, -2) }],
  'torque.wrench': [example('torque.wrench'), { which: 'W2', setting: 108 }],
  'units.convert': [example('units.convert'), { converted: about(32.54, 2) }],
  'chain.wear': [
    { now: 257.5, pitch: 12.7 },
    { longer: about(0.0138, 4), used: about(0.92, 2) },
  ],
  'spline.wear': [example('spline.wear'), { play: about(0.06, 9) }],
  'synchro.gap': [example('synchro.gap'), { used: about(0.64, 2), hoursLeft: about(3333 * 3600, -4) }],
  'wire.drop': [example('wire.drop'), { lost: about(0.325, 3) }],
};

/** The doc block before each working: every one has an example. */
function docExamples(): ReadonlyMap<string, string> {
  const root = import.meta.dirname;
  const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter((name) => name.endsWith('.ts') && !name.includes('.test'));
  const found = new Map<string, string>();
  for (const name of files) {
    const text = readFileSync(join(root, name), 'utf8');
    const id = /defineWorking\(\{\s*id: '([^']+)'/u.exec(text)?.[1];
    const words = /\* Examples?: ([\s\S]*?)\*\//u.exec(text)?.[1];
    if (id && words) found.set(id, words.replace(/\s*\n \* ?/gu, ' ').trim());
  }
  return found;
}

describe('the example of a doc block is what the working answers', () => {
  const words = docExamples();
  test.each(workings.list().map(({ id }) => [id]))('%s', (id) => {
    expect(words.get(id)).toBeTruthy();
    const [input, expected] = EXAMPLES[id]!;
    expect(output(id, input)).toMatchObject(expected);
  });
});
