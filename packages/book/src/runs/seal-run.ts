import { workings } from '@jubb/core';
import { find, partName, SEAL_AFTER, type Seal, type SealAfter, type SealKind, type SheetFile } from '@jubb/sheet';
import { isKind, type AnyKeptEntry } from '../entries/kept.js';

/** What is looked at round a seal: its place, the new one, what covers the way in, and what shows once it is in. */
export const SEAL_SIGHTS = ['place', 'new', 'guard-on', 'guard-off', ...SEAL_AFTER] as const;
export type SealSight = (typeof SEAL_SIGHTS)[number];

/** What is looked at before it goes in, in the order of the work. */
export function sightsBefore({ guard }: Pick<Seal, 'guard'>): readonly SealSight[] {
  return ['place', 'new', ...(guard === undefined ? [] : (['guard-on'] as const))];
}

/** What is looked at once it is in. */
export function sightsAfter({ guard, after = [] }: Pick<Seal, 'guard' | 'after'>): readonly SealSight[] {
  return [...(guard === undefined ? [] : (['guard-off'] as const)), ...after];
}

const PLACE: Readonly<Record<SealKind, string>> = {
  'lip-seal': 'bore clean, no gouge, no burr; the track where its lip will run smooth; no edge or thread that cuts it on the way',
  'o-ring': 'groove clean, no gouge left by the pick, no burr at its edges',
  'piston-seal': 'groove clean, no gouge left by the pick, no burr at its edges',
  'face-seal': 'seats clean and dry, no burr, nothing left of the old one',
  gasket: 'both faces bare, dry and flat, nothing left of the old one, no gouge of a scraper',
  sealant: 'both faces bare and degreased, nothing left of the old one, no gouge of a scraper',
  boot: 'seat clean, nothing sharp where it lies or is clamped',
  bellows: 'seat clean, nothing sharp where it lies or is clamped',
};

const AFTER: Readonly<Record<SealAfter, string>> = {
  spring: 'garter spring in its groove, all round',
  lip: 'lip not turned under, all round',
  turns: 'turned by hand it drags evenly and does not grab',
};

/** What a look at a seal has to find, as a colleague would say it. */
export function sightWords(seal: Pick<Seal, 'kind' | 'guard' | 'size' | 'material'>, sight: SealSight): string {
  switch (sight) {
    case 'place':
      return PLACE[seal.kind];
    case 'new':
      return seal.kind === 'sealant'
        ? `${seal.material}: in date, not skinned in its nozzle`
        : `whole on every face and edge, no nick; it is ${seal.size}, ${seal.material}`;
    case 'guard-on':
      return `${seal.guard ?? ''}: on, and smooth`;
    case 'guard-off':
      return `${seal.guard ?? ''}: off again, all of it`;
    default:
      return AFTER[sight];
  }
}

const SHORT: Readonly<Record<Exclude<SealSight, 'guard-on' | 'guard-off'>, string>> = {
  place: 'its place',
  new: 'the new one',
  spring: 'spring',
  lip: 'lip',
  turns: 'turned by hand',
};

/** The look in two words: "the new one", "tape off". */
export function sightName({ guard = '' }: Pick<Seal, 'guard'>, sight: SealSight): string {
  if (sight === 'guard-on' || sight === 'guard-off') return `${guard.split(' ')[0] ?? ''} ${sight === 'guard-on' ? 'on' : 'off'}`;
  return SHORT[sight];
}

/** What is likeliest to be wrong, the likeliest first. */
export const SIGHT_FAULTS: Readonly<Record<SealSight, readonly string[]>> = {
  place: ['gouge', 'burr', 'worn track', 'rest of the old one'],
  new: ['nicked', 'other size', 'other rubber', 'hard with age'],
  'guard-on': ['torn', 'does not reach'],
  'guard-off': ['a piece is missing'],
  spring: ['off its groove'],
  lip: ['turned under'],
  turns: ['grabs', 'uneven'],
};

/** What an old seal shows of why it leaked, or that nothing is wrong with it. */
export const SEAL_FAILURES = ['hardened', 'worn-track', 'nicked', 'swollen', 'blown', 'fitted-wrong', 'sound'] as const;
export type SealFailure = (typeof SEAL_FAILURES)[number];

export const SEAL_FAILURE_WORDS: Readonly<Record<SealFailure, string>> = {
  hardened: 'hard and cracked: heat or age',
  'worn-track': 'a track worn into what it runs on',
  nicked: 'nicked or torn',
  swollen: 'swollen or soft: the wrong rubber for its fluid',
  blown: 'blown out by pressure: breather or relief',
  'fitted-wrong': 'fitted wrong: crooked, dry or the wrong way',
  sound: 'nothing to see',
};

/** A look that is due, and what the last one found where it was not right. */
export interface SightDue {
  readonly seal: Seal;
  readonly sight: SealSight;
  readonly notSo?: string;
}

/** The looks at a seal that stand: the last of each since its part came off. */
export function sightsOf(
  seal: Pick<Seal, 'ref' | 'part'>,
  live: readonly AnyKeptEntry[],
): ReadonlyMap<SealSight, { readonly fine: boolean; readonly words?: string }> {
  const off = live.findLastIndex((entry) => entry.kind === 'came-off' && entry.payload.part === seal.part);
  const own = live.slice(off + 1).filter(isKind('seal-seen'));
  return new Map(own.flatMap(({ payload }) => (payload.seal === seal.ref ? [[payload.what, payload] as const] : [])));
}

/** What is still to be looked at before a seal goes in. */
export function beforeSeal(seal: Seal, live: readonly AnyKeptEntry[]): readonly SightDue[] {
  return due(seal, sightsBefore(seal), sightsOf(seal, live));
}

/** What is still to be looked at once it is in, by what was kept since. */
export function afterSeal(seal: Seal, since: readonly AnyKeptEntry[]): readonly SightDue[] {
  return due(seal, sightsAfter(seal), sightsOf(seal, since));
}

function due(seal: Seal, sights: readonly SealSight[], seen: ReturnType<typeof sightsOf>): readonly SightDue[] {
  return sights.flatMap((sight) => {
    const said = seen.get(sight);
    return said?.fine ? [] : [{ seal, sight, ...(said?.words === undefined ? {} : { notSo: said.words }) }];
  });
}

/** New ones of a part that were put aside: each takes another one. */
export function putAside(sheet: SheetFile, part: string, live: readonly AnyKeptEntry[]): number {
  const refs = new Set(sheet.seals.flatMap((seal) => (seal.part === part ? [seal.ref] : [])));
  return live.filter(isKind('seal-seen')).filter(({ payload }) => payload.what === 'new' && !payload.fine && refs.has(payload.seal)).length;
}

/** Whether the one that went in last was put aside after all. */
export function isPutAside(seal: string, live: readonly AnyKeptEntry[]): boolean {
  const last = live.findLast((entry) =>
    entry.kind === 'seal-fitted'
      ? entry.payload.seal === seal
      : entry.kind === 'seal-seen' && entry.payload.seal === seal && entry.payload.what === 'new',
  );
  return last?.kind === 'seal-seen' && !last.payload.fine;
}

/** What the rubber of a seal is in what it meets; nothing where the sheet does not say what that is, or no table has the rubber. */
export function rubberStands({
  material,
  medium,
}: {
  readonly material: string;
  readonly medium?: Seal['medium'];
}): { readonly rating: string; readonly why: string } | undefined {
  const run = medium === undefined ? undefined : workings.run('seal.material', { material, medium });
  return run?.ok ? { rating: String(run.run.output['rating']), why: String(run.run.output['why']) } : undefined;
}

/** "Pinion seal 44 × 72 × 10: garter spring in its groove, all round". */
export function sightLine(sheet: SheetFile, ref: string, sight: SealSight): string {
  const seal = find(sheet.seals, ref);
  return seal ? `${partName(sheet, seal.part)}, ${sightWords(seal, sight)}` : ref;
}
