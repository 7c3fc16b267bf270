// ./jubb bench shims: the best pack of shims against a solver, and what a setting takes to be worked out.
import { performance } from 'node:perf_hooks';
import { median } from './figures.mjs';
import { say } from './say.mjs';
import { checkMachine, ensureBuild, ensureNodeModules } from './setup.mjs';

const CASES = 1000;
/** Without the solver, which takes minutes over a box of this size. */
const LARGE_CASES = 200;
const SIZES = 300;
const PIECES = 8;
/** A piece against a micrometre of error: eight of them are still less than one. */
const WEIGHT = 0.01;

export async function benchShims() {
  checkMachine();
  ensureNodeModules();
  ensureBuild();
  const core = await import('../packages/core/dist/index.js');
  const { default: highs } = await import('highs');
  const solver = await highs();
  await packs(core, solver);
  settings(core);
}

function shelfFrom(random, sizes) {
  const thicknesses = new Set();
  while (thicknesses.size < sizes) thicknesses.add(Math.round(50 + random() * 1950) / 1000);
  return [...thicknesses].map((thickness) => ({ thickness, count: Math.floor(random() * 5) }));
}

async function packs({ bestPacks, seeded }, solver) {
  const ours = [];
  const theirs = [];
  let same = 0;
  for (let seed = 1; seed <= CASES; seed += 1) {
    const random = seeded(seed);
    const shelf = shelfFrom(random, 8 + Math.floor(random() * 24));
    const wanted = Math.round(200 + random() * 5800) / 1000;
    const programme = [
      'Minimize',
      `e + ${shelf.map((_, size) => `${WEIGHT} x${size}`).join(' + ')}`,
      'Subject To',
      `${shelf.map(({ thickness }, size) => `${Math.round(thickness * 1000)} x${size}`).join(' + ')} - e <= ${Math.round(wanted * 1000)}`,
      `${shelf.map(({ thickness }, size) => `${Math.round(thickness * 1000)} x${size}`).join(' + ')} + e >= ${Math.round(wanted * 1000)}`,
      `${shelf.map((_, size) => `x${size}`).join(' + ')} <= ${PIECES}`,
      'Bounds',
      ...shelf.map(({ count }, size) => `0 <= x${size} <= ${count}`),
      'General',
      shelf.map((_, size) => `x${size}`).join(' '),
      'End',
    ].join('\n');
    let began = performance.now();
    const [best] = bestPacks(wanted, shelf, PIECES, 1);
    ours.push(performance.now() - began);
    began = performance.now();
    const solved = solver.solve(programme, { mip_rel_gap: 0, mip_abs_gap: 0 });
    theirs.push(performance.now() - began);
    const pieces = best.pieces.reduce((sum, { count }) => sum + count, 0);
    const error = Math.round(Math.abs(best.thickness - wanted) * 1000);
    if (Math.abs(solved.ObjectiveValue - error - WEIGHT * pieces) < 1e-4) same += 1;
  }
  const large = Array.from({ length: LARGE_CASES }, (_, index) => {
    const random = seeded(index + 1);
    const shelf = shelfFrom(random, SIZES);
    const began = performance.now();
    bestPacks(0.2 + random() * 5.8, shelf, PIECES, 6);
    return performance.now() - began;
  });
  const ratio = median(theirs) / median(ours);
  say(
    `best pack: the same optimum in ${same} of ${CASES}; median ${median(ours).toFixed(2)} ms, HiGHS ${median(theirs).toFixed(2)} ms: ${ratio.toFixed(0)} times faster, at least 20 wanted`,
  );
  say(
    `from ${SIZES} thicknesses, up to ${PIECES} pieces: median ${median(large).toFixed(2)} ms, most ${Math.max(...large).toFixed(2)} ms; aim 10 ms`,
  );
}

/** Each working of joints, bearings, fits and gears on its own example. */
function settings({ workings }) {
  const AREAS = new Set(['torque', 'bearings', 'fits', 'gears', 'shafts', 'gearboxes', 'clutches', 'compressors']);
  const times = workings
    .list()
    .filter(({ area }) => AREAS.has(area))
    .map(({ id, example }) => {
      workings.run(id, example);
      const began = performance.now();
      for (let count = 0; count < 20; count += 1) workings.run(id, example);
      return { id, ms: (performance.now() - began) / 20 };
    })
    .toSorted((one, other) => other.ms - one.ms);
  const [slowest, ...rest] = times;
  say(
    `${times.length} workings: median ${median(times.map(({ ms }) => ms)).toFixed(3)} ms; slowest ${slowest.id} ${slowest.ms.toFixed(2)} ms, then ${rest[0].id} ${rest[0].ms.toFixed(2)} ms; aim 1 ms`,
  );
}
