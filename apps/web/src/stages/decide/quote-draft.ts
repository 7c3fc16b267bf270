import {
  entryWords,
  isKind,
  quoteTotal,
  readingFigure,
  readingLine,
  soldAt,
  verdictOf,
  type JobState,
  type Parts,
  type QuoteBody,
  type QuoteFinding,
  type QuoteLine,
  type QuoteOption,
  type QuotePicture,
  type QuoteView,
  type Risen,
} from '@jubb/book';
import { baseOf, cutText, find, limitQuantity, limitWindow } from '@jubb/sheet';
import type { ShopView } from '@jubb/wire';
import { baseUnit } from '@jubb/core';
import { amountText, minorOf, percentText } from '../../kit/money.ts';

export interface TypedLine extends Omit<QuoteLine, 'quantity' | 'unitMinor'> {
  readonly quantity: string;
  readonly unit: string;
}

export interface TypedOption extends Omit<QuoteOption, 'lines'> {
  readonly lines: readonly TypedLine[];
}

export interface TypedQuote {
  readonly to: string;
  readonly words: string;
  readonly validUntil: string;
  readonly tax: string;
  readonly findings: readonly (QuoteFinding & { readonly shown: boolean })[];
  readonly pictures: readonly (QuotePicture & { readonly shown: boolean })[];
  readonly options: readonly TypedOption[];
}

/** Readings, looks and workings that are out or unsure, as the customer may read them. */
export function findingsOf({ live, sheet }: JobState): readonly QuoteFinding[] {
  return live.flatMap((entry): readonly QuoteFinding[] => {
    if (entry.kind === 'reading') {
      const limit = find(sheet.limits, entry.payload.limit);
      const verdict = verdictOf(entry);
      if (!limit || !verdict || verdict === 'in') return [];
      const { from, to } = limitWindow(limit);
      return [
        {
          words: [limit.name, readingLine(limit, entry.payload).how].filter(Boolean).join(', '),
          verdict: verdict as QuoteFinding['verdict'],
          // The figure that was judged: the worst place, the span, the size at 20 °C.
          readings: [readingFigure(limit, entry.payload)],
          ...(from === undefined ? {} : { from }),
          ...(to === undefined ? {} : { to }),
          unit: baseUnit(limitQuantity(limit)).symbol,
        },
      ];
    }
    if (entry.kind === 'worked') {
      const verdict = verdictOf(entry);
      const words = cutText(entryWords(entry, sheet), 300);
      return verdict && verdict !== 'in' ? [{ words, verdict }] : [];
    }
    if (entry.kind !== 'look') return [];
    const limit = find(sheet.limits, entry.payload.limit);
    const look = find(limit?.looks ?? [], entry.payload.look);
    return limit && look && look.verdict !== 'in' ? [{ words: `${limit.name}: ${look.words}`, verdict: look.verdict }] : [];
  });
}

/** A price that nobody has said is left open: the quote does not go out before it is. */
function priceText(minor: number | undefined): string {
  return minor === undefined ? '' : amountText(minor);
}

/** All that is needed, labour by the sheet, and what is cheap to do while it is open. */
export function plannedOption(
  { lines }: Parts,
  { sheet }: JobState,
  hours: number,
  { hourlyMinor, marginShare }: Pick<ShopView, 'hourlyMinor' | 'marginShare'>,
): TypedOption {
  const partLines = lines.map((line): TypedLine => ({
    sort: 'part',
    what: line.need.unit === 'piece' ? line.need.name : `${line.need.name} (${line.need.unit})`,
    quantity: String(line.need.pieces),
    unit: priceText(soldAt(line, marginShare)),
    ...(line.need.number === null ? {} : { number: line.need.number }),
  }));
  const offered = (sheet.whileOpen ?? []).map(({ work, why, comeBack }): TypedLine => ({
    sort: 'labour',
    what: cutText(`While it is open: ${work}. ${why}${comeBack === undefined ? '' : ` To come back for it takes ${comeBack}.`}`, 300),
    quantity: comeBack === undefined ? '0.5' : String(Math.max(0.25, Math.round((baseOf(comeBack, 'time') / 3600) * 0.25 * 4) / 4)),
    unit: amountText(hourlyMinor),
    optional: true,
  }));
  return {
    name: 'As planned',
    lines: [{ sort: 'labour', what: 'Labour', quantity: String(hours), unit: amountText(hourlyMinor) }, ...partLines, ...offered],
  };
}

/** The same quote with today's prices for what is dearer by now. */
export function askedAgain({ body }: QuoteView, risen: readonly Risen[], validUntil: string): TypedQuote {
  return {
    to: body.to,
    words: 'Some parts have become dearer since you said yes; please look again.',
    validUntil,
    tax: percentText(body.taxShare),
    findings: body.findings.map((finding) => ({ ...finding, shown: true })),
    pictures: (body.pictures ?? []).map((picture) => ({ ...picture, shown: true })),
    options: body.options.map((option) => ({
      ...option,
      lines: option.lines.map(({ unitMinor, quantity, ...line }) => ({
        ...line,
        quantity: String(quantity),
        unit: amountText(risen.find(({ number }) => number === line.number)?.nowMinor ?? unitMinor),
      })),
    })),
  };
}

/** Photos of the job, as its customer may be shown them. */
export function picturesOf({ live }: JobState): readonly QuotePicture[] {
  return live.filter(isKind('photo')).map(({ payload: { file, words, width, height } }) => ({
    file,
    words: cutText(words?.trim() || 'As it was found', 200),
    width,
    height,
  }));
}

export function shareOf(text: string): number | undefined {
  const typed = Number(text.trim().replace(',', '.').replace(/\s*%$/u, ''));
  return text.trim() !== '' && typed >= 0 && typed <= 100 ? typed / 100 : undefined;
}

export function lineOf({ quantity, unit, ...rest }: TypedLine): QuoteLine | undefined {
  const typed = Number(quantity.trim().replace(',', '.'));
  const unitMinor = minorOf(unit);
  if (quantity.trim() === '' || !(typed >= 0) || typed > 100_000 || unitMinor === undefined) return undefined;
  return { ...rest, quantity: Math.round(typed * 1000) / 1000, unitMinor };
}

export function totalOf(option: TypedOption, tax: string): number {
  return quoteTotal({ lines: option.lines.flatMap((line) => lineOf(line) ?? []) }, shareOf(tax) ?? 0).gross;
}

export function bodyOf(id: string, { to, words, validUntil, tax, findings, pictures, options }: TypedQuote): QuoteBody | undefined {
  const taxShare = shareOf(tax);
  const read = options.map(({ lines, ...option }) => ({ ...option, lines: lines.map(lineOf) }));
  if (taxShare === undefined || to.trim() === '') return undefined;
  if (read.some(({ name, lines }) => name.trim() === '' || lines.some((line) => !line || line.what.trim() === ''))) return undefined;
  return {
    id,
    to: to.trim(),
    ...(words.trim() ? { words: words.trim() } : {}),
    validUntil,
    taxShare,
    findings: findings.filter(({ shown }) => shown).map(({ shown: _shown, ...finding }) => finding),
    pictures: pictures.filter(({ shown }) => shown).map(({ shown: _shown, ...picture }) => picture),
    options: read as QuoteOption[],
  };
}
