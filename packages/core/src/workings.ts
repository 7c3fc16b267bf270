import { brushes } from './alternators/brushes.js';
import { diodes } from './alternators/diodes.js';
import { output } from './alternators/output.js';
import { pulley } from './alternators/pulley.js';
import { rotor } from './alternators/rotor.js';
import { stator } from './alternators/stator.js';
import { balls } from './bearings/balls.js';
import { clearance } from './bearings/clearance.js';
import { coneAndLocknut } from './bearings/cone-and-locknut.js';
import { crushSleeve } from './bearings/crush-sleeve.js';
import { identifyBearing } from './bearings/identify.js';
import { life } from './bearings/life.js';
import { noise } from './bearings/noise.js';
import { nut } from './bearings/nut.js';
import { rollingTorque } from './bearings/rolling-torque.js';
import { shim } from './bearings/shim.js';
import { thermal } from './bearings/thermal.js';
import { clutchCapacity } from './clutches/capacity.js';
import { clutchPack } from './clutches/pack.js';
import { airGap } from './compressors/air-gap.js';
import { estimate } from './decide/estimate.js';
import { repair } from './decide/repair.js';
import { heat } from './fits/heat.js';
import { fitLimits } from './fits/limits.js';
import { fitMeasured } from './fits/measured.js';
import { off } from './fits/off.js';
import { press } from './fits/press.js';
import { sleeve } from './fits/sleeve.js';
import { snapRing } from './gearboxes/snap-ring.js';
import { backlash } from './gears/backlash.js';
import { contact } from './gears/contact.js';
import { pinionDepth } from './gears/pinion-depth.js';
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
import { oringExtrusion } from './seals/extrusion.js';
import { cord } from './seals/cord.js';
import { chevron } from './seals/chevron.js';
import { faceCompression } from './seals/face-compression.js';
import { gasket } from './seals/gasket.js';
import { gasketMake } from './seals/gasket-make.js';
import { lightBands } from './seals/light-bands.js';
import { lip } from './seals/lip.js';
import { sealMaterial } from './seals/material.js';
import { oringCheck } from './seals/oring-check.js';
import { oringDrag } from './seals/oring-drag.js';
import { oringNoGroove } from './seals/oring-no-groove.js';
import { oringPick } from './seals/oring-pick.js';
import { pressIn } from './seals/press-in.js';
import { retaining } from './seals/retaining.js';
import { shelfLifeOf } from './seals/shelf-life.js';
import { sealant } from './seals/sealant.js';
import { sealSize } from './seals/size.js';
import { wearTrack } from './seals/wear-track.js';
import { drivelineAngles } from './shafts/angles.js';
import { endPlayShim } from './shafts/end-play-shim.js';
import { springCheck } from './springs/check.js';
import { areas } from './threads/areas.js';
import { identify } from './threads/identify.js';
import { adapter } from './torque/adapter.js';
import { angle } from './torque/angle.js';
import { batch } from './torque/batch.js';
import { breakaway } from './torque/breakaway.js';
import { noSpec } from './torque/no-spec.js';
import { pattern } from './torque/pattern.js';
import { preload } from './torque/preload.js';
import { prevailing } from './torque/prevailing.js';
import { stretch } from './torque/stretch.js';
import { wrench } from './torque/wrench.js';
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
  noSpec,
  wrench,
  preload,
  angle,
  stretch,
  prevailing,
  batch,
  nut,
  coneAndLocknut,
  balls,
  shim,
  rollingTorque,
  crushSleeve,
  thermal,
  life,
  clearance,
  identifyBearing,
  noise,
  fitLimits,
  fitMeasured,
  press,
  off,
  heat,
  sleeve,
  ratio,
  backlash,
  pinionDepth,
  contact,
  endPlayShim,
  snapRing,
  clutchPack,
  clutchCapacity,
  drivelineAngles,
  airGap,
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
  oringCheck,
  oringPick,
  oringDrag,
  oringNoGroove,
  sealMaterial,
  lip,
  wearTrack,
  faceCompression,
  sealant,
  retaining,
  oringExtrusion,
  sealSize,
  gasket,
  gasketMake,
  chevron,
  pressIn,
  shelfLifeOf,
  cord,
  lightBands,
]);
