import { type Fluid, type Part, type SheetFile, amountQuantity, baseRef, partName } from '@jubb/sheet';
import type { JobState } from '../state.js';
import { parseQuantity } from '@jubb/core';

/** Something that the job must have before it goes together. */
export interface Need {
  /** Refs of the parts, of both sides where they are the same; a fluid has none. */
  readonly parts: readonly string[];
  readonly name: string;
  /** The number to order by: the last one of a chain of supersession. */
  readonly number: string | null;
  /** The number on the old part, where another has taken its place. */
  readonly was: string | null;
  readonly designation: string | null;
  readonly pieces: number;
  readonly unit: 'piece' | 'L' | 'kg';
  readonly because: string;
  /** Decided; else only what the sheet proposes. */
  readonly sure: boolean;
}

/** The number that took the place of a part's own, at the end of the chain; a ring of numbers ends where it began. */
export function orderNumber({ number, superseded = [] }: Pick<Part, 'number' | 'superseded'>): string | null {
  let at = number ?? null;
  const seen = new Set<string>();
  for (;;) {
    const next = superseded.find((one) => one.number === at)?.by;
    if (next === undefined || at === null || seen.has(at)) return at;
    seen.add(at);
    at = next;
  }
}

/** What is to be had: parts that are renewed, or would be by what is proposed, and what is filled in. */
export function needsOf({ sheet, decisions }: Pick<JobState, 'sheet' | 'decisions'>): readonly Need[] {
  const lines = new Map<string, Need>();
  for (const { part, entry, proposed, because } of decisions) {
    if ((entry?.payload.fate ?? proposed) !== 'renew') continue;
    const number = orderNumber(part);
    const key = number ?? baseRef(part);
    const before = lines.get(key);
    lines.set(key, {
      parts: [...(before?.parts ?? []), part.ref],
      name: partName(sheet, part.ref),
      number,
      was: part.number !== undefined && part.number !== number ? part.number : null,
      designation: part.designation ?? null,
      pieces: (before?.pieces ?? 0) + (entry?.payload.quantity ?? part.quantity),
      unit: 'piece',
      because: entry?.payload.reason ?? because,
      sure: (before?.sure ?? true) && entry !== undefined,
    });
  }
  return [...lines.values(), ...sheet.fluids.flatMap(fluidNeed)];
}

/** A fluid by the litre or the kilogram, in whatever unit its sheet has it. */
function fluidNeed(fluid: Fluid): readonly Need[] {
  const figure = fluid.amount?.figure ?? '';
  const quantity = amountQuantity(figure);
  const amount = parseQuantity(figure, quantity, 'amount');
  if (!amount.ok || !amount.quantity.unitTyped || amount.quantity.base <= 0) return [];
  return [
    {
      parts: [],
      name: `${fluid.name}, ${fluid.grade}`,
      number: null,
      was: null,
      designation: fluid.grade,
      // Shelves count in thousandths.
      pieces: Math.round(amount.quantity.base * 1000) / 1000,
      unit: quantity === 'mass' ? 'kg' : 'L',
      because: fluid.rule,
      sure: true,
    },
  ];
}

/** A kit of the sheet, by what of the needs it brings. */
export interface KitOffer {
  readonly ref: string;
  readonly name: string;
  readonly number: string | null;
  /** By place in the list of needs. */
  readonly brings: readonly { readonly need: number; readonly pieces: number }[];
}

/** Kits of the sheet that bring something of what is needed; each brings a part in the number that the unit has. */
export function kitsFor(sheet: SheetFile, needs: readonly Need[]): readonly KitOffer[] {
  return (sheet.kits ?? []).flatMap((kit) => {
    const brings = kit.parts.flatMap((ref) => {
      const own = sheet.parts.filter((part) => baseRef(part) === ref);
      const need = needs.findIndex(({ parts }) => own.some((part) => parts.includes(part.ref)));
      const part = own.find((one) => needs[need]?.parts.includes(one.ref));
      return need === -1 || !part ? [] : [{ need, pieces: part.quantity }];
    });
    return brings.length === 0 ? [] : [{ ref: kit.ref, name: kit.name, number: kit.number ?? null, brings }];
  });
}
