import { workings } from '@jubb/core';
import { find, type Fate, type Limit, type Part, type SheetFile } from '@jubb/sheet';
import { isKind, type AnyKeptEntry, type KeptEntry } from './entries/kept.js';
import { verdictOf } from './measured/verdict.js';

/** Parts that a shop renews whatever the sheet proposes: every word must be in the part's name. */
export interface RenewRule {
  readonly words: string;
  readonly why: string;
}

export interface Decision {
  readonly part: Part;
  readonly proposed: Fate;
  readonly because: string;
  /** What condemns it or leaves it open, where a reading or a look does. */
  readonly verdict?: 'out' | 'unsure';
  readonly entry?: KeptEntry<'decision'>;
}

/** What is decided of each part, and what is proposed. */
export function decide(sheet: SheetFile, live: readonly AnyKeptEntry[], rules: readonly RenewRule[]): readonly Decision[] {
  return sheet.parts.map((part) => {
    const entry = live.filter(isKind('decision')).findLast((candidate) => candidate.payload.part === part.ref);
    return { part, ...propose(sheet, part, live, rules), ...(entry ? { entry } : {}) };
  });
}

/** What the sheet's policy, the readings, the looks and the shop's rules say of a part, and which of them says it. */
function propose(
  sheet: SheetFile,
  part: Part,
  live: readonly AnyKeptEntry[],
  rules: readonly RenewRule[],
): Pick<Decision, 'proposed' | 'because' | 'verdict'> {
  const intent = live.filter(isKind('intent')).findLast(({ payload }) => payload.part === part.ref)?.payload.intent;
  if (intent === 'sacrifice') return { proposed: 'renew', because: 'spoilt in coming off, as was meant' };
  if (part.policy === 'renew') return { proposed: 'renew', because: 'renewed every time' };
  const rule = rules.find(({ words }) => holdsWords(part.name, words));
  if (rule) return { proposed: 'renew', because: `the shop's rule: ${rule.why}` };
  const limits = sheet.limits.filter((limit) => limit.part === part.ref);
  let open: ReturnType<typeof propose> | undefined;
  const unread: string[] = [];
  for (const limit of limits) {
    const look = live.filter(isKind('look')).findLast((entry) => entry.payload.limit === limit.ref);
    const words = look && find(limit.looks ?? [], look.payload.look);
    if (words?.verdict === 'out') return { proposed: 'renew', because: `${limit.name}: ${words.words}`, verdict: 'out' };
    const reading = live.filter(isKind('reading')).findLast((entry) => entry.payload.limit === limit.ref);
    const verdict = reading && verdictOf(reading);
    if (verdict === 'out') return { proposed: 'renew', because: `${limit.name} is out`, verdict: 'out' };
    if (!look && !reading) unread.push(limit.name);
    if (verdict === 'unsure' || words?.verdict === 'unsure')
      open ??= { proposed: 'reuse', because: `${limit.name} is unsure: measure again or ask`, verdict: 'unsure' };
  }
  for (const entry of live.filter(isKind('worked')).filter(({ payload }) => payload.part === part.ref)) {
    const verdict = verdictOf(entry);
    const bad = entry.working?.output['bad'] ?? entry.working?.output['what'];
    const because =
      `${workings.describe(entry.payload.working)?.title ?? entry.payload.working} ${typeof bad === 'string' ? bad : ''}`.trim();
    if (verdict === 'out') return { proposed: 'renew', because, verdict };
    if (verdict === 'unsure') open ??= { proposed: 'reuse', because: `${because} (unsure: measure again or ask)`, verdict };
  }
  // What is out weighs more than what is unsure, whichever was looked at first.
  if (open) return open;
  return { proposed: 'reuse', because: part.policy === 'reuse' ? 'goes back as it is' : judgedWords(limits, unread) };
}

/** What was read is in; what nobody read is no reason to let a part go back. */
function judgedWords(limits: readonly Limit[], unread: readonly string[]): string {
  const read = limits.map(({ name }) => name).filter((name) => !unread.includes(name));
  const words = [read.length > 0 ? `${read.join(', ')} in` : '', unread.length > 0 ? `not read: ${unread.join(', ')}` : ''];
  return words.filter(Boolean).join('; ') || 'nothing against it';
}

/** Every word, whole or from its beginning: "seal" is in "Lip seals", "ring" is not in "Spring". */
function holdsWords(name: string, words: string): boolean {
  const inName = name.toLowerCase().split(/[^\p{L}\d]+/u);
  const asked = words
    .toLowerCase()
    .split(/[^\p{L}\d]+/u)
    .filter(Boolean);
  return asked.length > 0 && asked.every((word) => inName.some((one) => one.startsWith(word)));
}
