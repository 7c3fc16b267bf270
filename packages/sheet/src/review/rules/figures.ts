import type { Setting, SheetFile } from '../../model/file.js';
import { reshapes } from '../../model/reshape.js';
import { candidatesOf, readingU } from '../../model/identify.js';
import { limitQuantity, windowOf } from '../../model/resolve.js';
import { sourcedIn, type SourcedValue } from '../../model/sourced.js';
import { VALUE_LISTS, type ValueList } from '../../words.js';
import { finding, ofSheet, nameIn, type Finding } from './rule.js';
import { tellsApart } from '@jubb/core';

export function* kitsHoldWhatIsRenewed(sheet: SheetFile): Iterable<Finding> {
  const inKits = new Set((sheet.kits ?? []).flatMap((kit) => kit.parts));
  if (inKits.size === 0) return;
  for (const part of sheet.parts)
    if (part.policy === 'renew' && !inKits.has(part.ref))
      yield finding(
        'care',
        'parts',
        sheet,
        part.ref,
        'policy',
        `${part.name}: renewed every time, and in no kit`,
        'Add it to the kit, or say that it is bought alone by a kit of its own.',
      );
}

/** Whether a step of this kind comes to a setting. */
export function comesTo(sheet: SheetFile, kind: 'setting' | 'proof', ref: string): boolean {
  return sheet.steps.some(({ record }) => record.kind === kind && record.setting === ref);
}

/** Whether it is proved by the step that closes it, or by a step of its own. */
export function isProved(sheet: SheetFile, { ref, proof }: Setting): boolean {
  return proof?.by === 'closing' || comesTo(sheet, 'proof', ref);
}

export function* settingsAreProved(sheet: SheetFile): Iterable<Finding> {
  for (const setting of sheet.settings) {
    if (!comesTo(sheet, 'setting', setting.ref))
      yield finding('stop', 'settings', sheet, setting.ref, '', `${setting.name}: no step sets it`, 'Add the step that sets it.');
    if (setting.proof?.by === 'closing') {
      yield* closingOpensAgain(sheet, setting);
      continue;
    }
    if (!isProved(sheet, setting))
      yield finding(
        'stop',
        'settings',
        sheet,
        setting.ref,
        '',
        `${setting.name}: no step proves it`,
        'Add a step that reads it again when all is closed; or say how it is proved: by its last reading before a step that closes, or by the whole less what else turns.',
      );
  }
}

/** A screw that closes it holds no more once what it hides was moved: the joint lies over it. */
function* closingOpensAgain(sheet: SheetFile, { ref, name, proof, under = [] }: Setting): Iterable<Finding> {
  if (comesTo(sheet, 'proof', ref))
    yield finding(
      'stop',
      'settings',
      sheet,
      ref,
      'proof',
      `${name}: proved before it is closed, and a step proves it again`,
      'Take that step out, or the way of proving.',
    );
  const closing = sheet.steps.find((step) => step.ref === proof?.closes);
  const { joint } = closing?.record ?? {};
  if (joint !== undefined && !under.includes(joint))
    yield finding(
      'stop',
      'settings',
      sheet,
      ref,
      'under',
      `${name}: “${closing?.title ?? ''}” closes it, and its joint does not lie over it`,
      'Name the joint among those that it lies under.',
    );
}

export function* windowsAgree(sheet: SheetFile): Iterable<Finding> {
  for (const limit of sheet.limits) {
    if (!limit.asNew || !limit.service) continue;
    const made = windowOf(limit.asNew, limitQuantity(limit));
    const may = windowOf(limit.service, limitQuantity(limit));
    const under = made.from !== undefined && may.from !== undefined && made.from < may.from;
    const over = made.to !== undefined && may.to !== undefined && made.to > may.to;
    if (under || over)
      yield finding(
        'stop',
        'limits',
        sheet,
        limit.ref,
        'service',
        `${limit.name}: a new one would be out`,
        'The service limit is wider than the new size, or the two are swapped.',
      );
  }
}

export function* variantsDiffer(sheet: SheetFile): Iterable<Finding> {
  const candidates = candidatesOf([{ key: sheet.key, file: sheet }]);
  for (const [index, a] of candidates.entries())
    for (const b of candidates.slice(index + 1)) {
      if (tellsApart(a.candidate, b.candidate, (feature) => readingU(sheet.features ?? [], feature)).length > 0) continue;
      yield finding(
        'stop',
        'variants',
        sheet,
        b.variant?.ref ?? '',
        'tells',
        `${a.name} and ${b.name} cannot be told apart`,
        'Add a feature on which they differ, or make them one.',
      );
    }
}

/** The first variant is the sheet as it stands. */
export function* variantsAct(sheet: SheetFile): Iterable<Finding> {
  for (const variant of (sheet.variants ?? []).slice(1))
    if (variant.differs !== undefined && !reshapes(variant))
      yield finding(
        'stop',
        'variants',
        sheet,
        variant.ref,
        'differs',
        `${variant.name} differs in words alone: the job would go by the first variant`,
        'Say which fields are otherwise, and which steps and parts come or go.',
      );
}

/** Whoever booked it in may have been wrong: the step at which it shows asks. */
export function* variantsShow({ variants = [], features = [], steps }: SheetFile): Iterable<Finding> {
  if (variants.length < 2) return;
  const shown = new Set(steps.flatMap(({ shows = [] }) => shows));
  if (shown.size === 0)
    yield ofSheet(
      'note',
      'variants',
      'No step says which variant it is: a wrong one at the counter stays wrong',
      'Say at which step a feature that tells them apart is in sight.',
    );
  for (const [index, a] of variants.entries())
    for (const b of variants.slice(index + 1)) {
      const differ = (ref: string): boolean =>
        a.tells.find(({ feature }) => feature === ref)?.is !== b.tells.find(({ feature }) => feature === ref)?.is;
      if (shown.size === 0 || features.some(({ ref }) => shown.has(ref) && differ(ref))) continue;
      yield ofSheet(
        'care',
        'variants',
        `${a.name} and ${b.name} look alike at the step that asks which one it is`,
        'Let the step show a feature on which they differ, too.',
      );
    }
}

export function* numbersAreTheLast(sheet: SheetFile): Iterable<Finding> {
  for (const part of sheet.parts) {
    const next = part.superseded?.find(({ number }) => number === part.number);
    if (next)
      yield finding(
        'care',
        'parts',
        sheet,
        part.ref,
        'number',
        `${part.name}: ${next.number} is superseded by ${next.by}`,
        'Put the last number of the chain.',
      );
  }
}

export function valuesOf(sheet: SheetFile): readonly (SourcedValue & { readonly list: ValueList; readonly ref: string })[] {
  return VALUE_LISTS.flatMap((list) => sheet[list].flatMap((line) => sourcedIn(line).map((value) => ({ list, ref: line.ref, ...value }))));
}

export function* valuesAreTrusted(sheet: SheetFile): Iterable<Finding> {
  for (const { list, ref, trust, path } of valuesOf(sheet))
    if (trust === 'unverified')
      yield finding(
        'note',
        list,
        sheet,
        ref,
        `${path}.trust`,
        `${nameIn(sheet, list, ref)}: a value is only somebody’s word`,
        'Find it in a book, have it worked out, or have the foreman stand for it.',
      );
}

export function* pinnedPagesAreHere(sheet: SheetFile): Iterable<Finding> {
  for (const step of sheet.steps) {
    const document = sheet.documents.find(({ ref }) => ref === step.pinned?.document);
    if (document && document.paper === undefined)
      yield finding(
        'care',
        'documents',
        sheet,
        document.ref,
        'paper',
        `"${step.title}" is pinned to a page of ${document.title}, and its paper is not here`,
        'Bring in the PDF.',
      );
  }
}
