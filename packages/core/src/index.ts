export * from './quantity/units.js';
export * from './quantity/parse.js';
export * from './quantity/format.js';
export type * from './working/describe.js';
export { wording, type Issue, type Result } from './working/issues.js';
export { splitList, quantityOf } from './working/input.js';
export type { Registry, WorkingDescription } from './working/registry.js';
export type { ResultOf, RunOf, RunResult, WorkingRun } from './working/run.js';
export { workings } from './workings.js';
export { circlePoints, starOrder, outwardOrder, type Point } from './torque/order.js';
export { adapter as torqueAdapter } from './torque/adapter.js';
export { breakaway as torqueBreakaway } from './torque/breakaway.js';
export { at20 as measureAt20 } from './measuring/at-20.js';
export { nut as bearingNut, lockPositions, pinFindsNoSlot, slotsTurned } from './bearings/nut.js';
export { verdict as measureVerdict } from './measuring/verdict.js';
export { parseThread, threadAreas, type Thread } from './threads/thread.js';
export {
  rankCandidates,
  rankQuestions,
  tellsApart,
  type Candidate,
  type Found,
  type Question,
  type Ranked,
  type Tells,
} from './identify/candidates.js';
export { rankCauses, SPEAKS, type LikelyCause, type Speaks } from './identify/causes.js';
export { MATERIAL_IDS, MEDIUM_IDS, type Material, type MediumId } from './seals/media.js';
export { thinned } from './seals/ring.js';
export { shelfLife } from './seals/shelf-life.js';
export { torqueAtYield } from './torque/screw.js';
export { contradiction, type Contradiction, type Slip } from './measuring/contradiction.js';
export { packPieces } from './bearings/shelf-field.js';
export { judge } from './measuring/verdict.js';
export { worstOf, type Verdict } from './measuring/verdict-field.js';
export { cheapestCover, type Cover, type Offer } from './decide/kits.js';
export { mayBegin, readOpen } from './quantity/open.js';
export { LITTLE_ANGLE, MUCH_ANGLE } from './torque/batch.js';
export {
  CONTACT_ALONG,
  CONTACT_UP,
  contact as gearContact,
  contactOff,
  contactPicture,
  contactShare,
  contactStep,
  type ContactPicture,
  type ContactSpots,
} from './gears/contact.js';
export { FASTENERS, SIGHTS, SIGHT_ACTS, watchPull, type Fastener, type PullPoint, type PullWanted, type Sight } from './torque/watch.js';
export { coolingAfter } from './fits/cooling.js';
export { bestPacks } from './math/shim-pack.js';
export { maximise } from './math/simplex.js';
export { fitWeibull } from './quality/weibull.js';
export { normal, seeded } from './math/random.js';
export { FAULTS, StandIn, standInFor, type Fault, type StandInModel, type StandInLine, type Pull } from './instruments/stand-in.js';
export { readScpiNumber, readTextLine, scpiUnit, type SentFigure } from './instruments/sent-text.js';
export { PRACTICE_HUB, PracticeHub } from './practice/hub.js';
export { PRACTICE_AXLE, PracticeAxle } from './practice/axle.js';
export { PRACTICE_SHAFT, PracticeShaft } from './practice/shaft.js';
