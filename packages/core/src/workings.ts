import { brushes } from './alternators/brushes.js';
import { diodes } from './alternators/diodes.js';
import { output } from './alternators/output.js';
import { pulley } from './alternators/pulley.js';
import { rotor } from './alternators/rotor.js';
import { stator } from './alternators/stator.js';
import { noise } from './bearings/noise.js';
import { nut } from './bearings/nut.js';
import { estimate } from './decide/estimate.js';
import { repair } from './decide/repair.js';
import { ratio } from './gears/ratio.js';
import { variant } from './identify/variant.js';
import { at20 } from './measuring/at-20.js';
import { bore } from './measuring/bore.js';
import { flatness } from './measuring/flatness.js';
import { gaugeRr } from './measuring/gauge-rr.js';
import { runout } from './measuring/runout.js';
import { toolCheck } from './measuring/tool-check.js';
import { verdict } from './measuring/verdict.js';
import { weibull } from './quality/weibull.js';
import { xmr } from './quality/xmr.js';
import { springCheck } from './springs/check.js';
import { areas } from './threads/areas.js';
import { identify } from './threads/identify.js';
import { adapter } from './torque/adapter.js';
import { breakaway } from './torque/breakaway.js';
import { pattern } from './torque/pattern.js';
import { convert } from './units/convert.js';
import { chain } from './wear/chain.js';
import { spline } from './wear/spline.js';
import { synchro } from './wear/synchro.js';
import { drop } from './wiring/drop.js';
import { Registry } from './working/registry.js';

/** Every working of the core. A new one is its own file and one line here. */
export const workings = new Registry([
  convert,
  identify,
  areas,
  adapter,
  pattern,
  breakaway,
  nut,
  noise,
  ratio,
  synchro,
  chain,
  spline,
  springCheck,
  verdict,
  bore,
  runout,
  flatness,
  at20,
  toolCheck,
  gaugeRr,
  xmr,
  weibull,
  repair,
  estimate,
  rotor,
  stator,
  diodes,
  brushes,
  output,
  pulley,
  drop,
  variant,
]);
